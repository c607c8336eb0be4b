import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { sentenceOf } from '../../api/problem'
import { type Clash, freeQuery, type Untold, untoldQuery } from '../../model/availabilityQueries'
import { type EventBrick, type Layer, titleOf } from '../../model/bricks'
import { draftOf, type EventDraft, withStart } from '../../model/eventDraft'
import { dateOf } from '../../model/times'
import { clockText, daysText, longDayText } from '../../reader/dates'
import { Alert } from '../../ui/Alert'
import { Button } from '../../ui/Button'
import { Desk } from '../../ui/Desk'

interface ClashDeskProps {
  clashes: readonly Clash[] | undefined
  /** In which days it is looked. */
  days: { from: string; to: string }
  /** How many there are beside those that are listed. */
  more: number
  error: unknown
  layers: readonly Layer[]
  names: ReadonlyMap<string, string>
  groupId: string | null
  /** Lies on the desk with another time, and is drawn on the wall before it is saved. */
  onMove: (form: EventDraft) => void
  onTakeOff: (brick: EventBrick, personId: string) => void
  onFine: (clash: { key: string }) => void
  onGo: (day: string) => void
  onClose: () => void
}

/** What collides in the weeks ahead and is one's own to resolve, each with what can be done about it. */
export function ClashDesk({ clashes, days, more, error, names, layers, ...acts }: ClashDeskProps) {
  const { onClose } = acts
  const untold = useQuery(untoldQuery(days.from, days.to)).data ?? []
  // Two events that run into each other again and again are one thing to think about.
  const pairs = Map.groupBy(clashes ?? [], (one) => `${one.first.eventId} ${one.second.eventId}`)
  return (
    <Desk title="Clashes" onClose={onClose}>
      {error !== null && error !== undefined && <Alert>{sentenceOf(error)}</Alert>}
      {clashes && (
        <p role="status" className="mb-2 text-[13px]">
          {clashes.length === 0
            ? 'Nothing collides in the eight weeks ahead, as far as you see.'
            : more > 0
              ? `The next ${clashes.length} in the eight weeks ahead, and ${more.toLocaleString('en')} more.`
              : `${clashes.length} in the eight weeks ahead.`}
        </p>
      )}
      <ol className="grid gap-3">
        {[...pairs.values()].map(([clash, ...later]) =>
          clash ? (
            <ClashItem
              key={clash.key}
              clash={clash}
              later={later.length}
              layers={layers}
              names={names}
              {...acts}
            />
          ) : null,
        )}
      </ol>
      {untold.length > 0 && (
        <section aria-label="With what is not told" className="mt-5">
          <h3 className="text-base">With what is not told</h3>
          <p className="mb-2 text-[12px] text-cement-700">
            They let others know when they are taken, and not by what.
          </p>
          <ol className="grid gap-3">
            {untold.map((one) => (
              <UntoldItem key={one.key} one={one} layers={layers} names={names} {...acts} />
            ))}
          </ol>
        </section>
      )}
    </Desk>
  )
}

type ItemProps = Omit<ClashDeskProps, 'clashes' | 'days' | 'more' | 'error' | 'onClose'> & {
  clash: Clash
  later: number
}

function ClashItem({ clash, later, layers, names, groupId, onMove, onTakeOff, onFine, onGo }: ItemProps) {
  const who = [
    ...clash.people.map((id) => names.get(id) ?? 'somebody'),
    ...clash.places.map((id) => layers.find((one) => one.calendarId === id)?.name ?? 'a place'),
  ]
  const both = [clash.first, clash.second] as const
  return (
    <li
      data-hard={clash.hard}
      className="grid gap-1.5 border-l-4 border-clash pl-2.5 data-[hard=false]:border-dashed"
    >
      <h3 className="text-base">
        <button type="button" className="text-left underline" onClick={() => onGo(dateOf(clash.start))}>
          {longDayText(clash.start)}, {clockText(clash.start)} – {clockText(clash.end)}
        </button>
      </h3>
      <p className="written text-[13px]">
        {clash.hard ? '' : 'Perhaps: '}
        <strong>{who.join(', ')}</strong> {clash.hard ? 'taken twice' : 'would be taken twice'}
        {later > 0 && `, and ${later} more ${later === 1 ? 'time' : 'times'}`}
      </p>
      <ul className="grid gap-1.5">
        {both.map((brick) => (
          <Half
            key={`${brick.eventId}/${brick.only}`}
            brick={brick}
            people={clash.people}
            places={clash.places}
            layer={layers.find((one) => one.calendarId === brick.calendarId)}
            names={names}
            groupId={groupId}
            onMove={onMove}
            onTakeOff={onTakeOff}
          />
        ))}
      </ul>
      {clash.mayMark && (
        <div>
          <Button onClick={() => onFine(clash)}>It is fine</Button>
        </div>
      )}
    </li>
  )
}

type UntoldItemProps = Omit<ItemProps, 'clash' | 'later'> & { one: Untold }

/** An event and somebody on it who is taken then by what is not told. */
function UntoldItem({ one, layers, names, groupId, onMove, onTakeOff, onFine, onGo }: UntoldItemProps) {
  return (
    <li
      data-hard={one.hard}
      className="grid gap-1.5 border-l-4 border-clash pl-2.5 data-[hard=false]:border-dashed"
    >
      <h4 className="text-base">
        <button type="button" className="text-left underline" onClick={() => onGo(dateOf(one.start))}>
          {longDayText(one.start)}, {clockText(one.start)} – {clockText(one.end)}
        </button>
      </h4>
      <p className="written text-[13px]">
        <strong>{one.name}</strong> {one.hard ? 'is busy' : 'is perhaps busy'}, with what is not told
      </p>
      <ul>
        <Half
          brick={one.event}
          people={[one.person]}
          places={[]}
          layer={layers.find((layer) => layer.calendarId === one.event.calendarId)}
          names={names}
          groupId={groupId}
          onMove={onMove}
          onTakeOff={onTakeOff}
        />
      </ul>
      <div>
        <Button onClick={() => onFine(one)}>It is fine</Button>
      </div>
    </li>
  )
}

interface HalfProps {
  brick: Clash['first']
  /** Who is taken twice. */
  people: readonly string[]
  places: readonly string[]
  layer: Layer | undefined
  names: ReadonlyMap<string, string>
  groupId: string | null
  onMove: ClashDeskProps['onMove']
  onTakeOff: ClashDeskProps['onTakeOff']
}

/** One of the two, with what can be done with it. */
function Half({ brick, people, places, layer, names, groupId, onMove, onTakeOff }: HalfProps) {
  const [isMoving, setMoving] = useState(false)
  const asked = [...new Set([...brick.attendees, ...people])]
  const nearest = useQuery({
    ...freeQuery(asked, places, brick.time, groupId, brick.eventId),
    enabled: isMoving,
  })
  const event: EventBrick = { ...brick, form: 'event' }
  // An absence without its person would be nobody's.
  const named = layer?.purpose === 'away' ? [] : people.filter((id) => brick.attendees.includes(id))
  const starts = [nearest.data?.earlier, nearest.data?.later].filter(
    (start): start is string => typeof start === 'string',
  )
  return (
    <li data-hue={layer?.hue} className="border border-layer-edge bg-layer-tint px-2 py-1 text-layer-text">
      <span className="written block font-bold">{titleOf(brick.title)}</span>
      <span className="written block text-[12px]">
        {layer?.name}, {whenText(brick)}
      </span>
      {brick.mayChange && (
        <span className="mt-1 flex flex-wrap gap-x-3 gap-y-1 text-[13px]">
          {brick.time.form !== 'days' && !isMoving && (
            <button type="button" className="underline" onClick={() => setMoving(true)}>
              Move it
            </button>
          )}
          {isMoving &&
            starts.map((start) => (
              <button
                key={start}
                type="button"
                className="underline"
                onClick={() => onMove({ ...draftOf(event), time: withStart(brick.time, start) })}
              >
                to {longDayText(start)}, {clockText(start)}
              </button>
            ))}
          {isMoving && nearest.data && starts.length === 0 && (
            <span>no time near that suits all; look for gaps (F)</span>
          )}
          {named.map((id) => (
            <button key={id} type="button" className="underline" onClick={() => onTakeOff(event, id)}>
              Take {names.get(id) ?? 'somebody'} off
            </button>
          ))}
        </span>
      )}
    </li>
  )
}

const whenText = ({ time }: Clash['first']): string =>
  time.form === 'days' ? daysText(time.first, time.last) : `${clockText(time.start)} – ${clockText(time.end)}`
