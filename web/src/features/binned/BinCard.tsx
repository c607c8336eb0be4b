import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { ProblemError } from '../../api/problem'
import { whenText } from '../../model/whenText'
import { momentText } from '../../reader/dates'
import { Button } from '../../ui/Button'
import { MarkBlock } from '../../ui/MarkSign'
import { useActs } from '../../undo/acts'
import { useAct } from '../../undo/useAct'
import { type BinEntry, type BinnedThing, binnedEventsQuery, bringBack, nearestBack } from './binQueries'
import { backText, headOf, startText } from './binWords'
import { EraseForm } from './EraseForm'

type Nearest = Awaited<ReturnType<typeof nearestBack>>

/** What one act put in the bin, with the way back. */
export function BinCard({ entry }: { entry: BinEntry }) {
  const acts = useActs()
  const [isErasing, setErasing] = useState(false)
  const [offer, setOffer] = useState<{ sentence: string; near: Nearest } | null>(null)
  const { place, count, things } = entry
  const back = useAct({
    run: ({ id, start }: { id?: string; start?: string }, set) =>
      bringBack({ ...place, id: id ?? place.id }, start, set),
    say: ({ returned }, { id }) =>
      backText(id ? { ...entry, count: 1, things: things.filter((one) => one.id === id) } : entry, returned),
    freshen: 'all',
    saysItself: true,
  })
  const bring = (wish: { id?: string; start?: string }) =>
    back.mutate(wish, {
      onError: (error) => {
        if (!isTaken(error) || count > 1 || place.kind !== 'events') acts.failed(error)
        else void nearestBack(place).then((near) => setOffer({ sentence: error.message, near }), acts.failed)
      },
    })
  const isMany = place.kind === 'events' && count > 1
  return (
    <li data-hue={entry.hue ?? undefined} className="rounded-control border border-cement-300 bg-surface p-3">
      <div className="flex flex-wrap items-start gap-3">
        {entry.mark && (
          <span className="flex text-layer-text">
            <MarkBlock mark={entry.mark} size={32} />
          </span>
        )}
        <div className="min-w-48 flex-1">
          <h2 className="written text-base">{headOf(entry)}</h2>
          {place.kind === 'events' && count === 1 && things[0]?.time && (
            <p className="text-[13px]">
              {whenText(things[0].time)}
              {things[0].repeats && ', the whole series'}
            </p>
          )}
          <p className="written text-[12px] text-cement-700">
            {place.kind === 'group'
              ? `A group with ${count === 1 ? '1 calendar' : `${count} calendars`}`
              : place.kind === 'calendar'
                ? `${entry.groupName}, ${count === 1 ? '1 event' : `${count} events`}`
                : `${entry.calendarName}, ${entry.groupName}`}
            . {entry.deletedBy}{' '}
            {place.kind === 'proposal' ? 'took it back' : isMany ? 'deleted them' : 'deleted it'} on{' '}
            {momentText(entry.deletedAt)}; kept until {momentText(entry.keptUntil)}.
          </p>
        </div>
        <div className="flex flex-wrap gap-2">
          <Button disabled={back.isPending} onClick={() => bring({})}>
            {isMany ? 'Bring all back' : 'Bring back'}
            <span className="sr-only"> {headOf(entry)}</span>
          </Button>
          {entry.erased && !isErasing && (
            <Button look="link" onClick={() => setErasing(true)}>
              Delete for good
              <span className="sr-only"> {headOf(entry)}</span>
            </Button>
          )}
        </div>
      </div>
      {isMany && <Things entry={entry} disabled={back.isPending} onBack={(id) => bring({ id })} />}
      {offer && (
        <div role="alert" className="mt-3 grid gap-2 border-l-4 border-clash pl-3 text-[13px]">
          <p className="written">{offer.sentence}</p>
          <div className="flex flex-wrap gap-2">
            <At near={offer.near} which="earlier" onChoose={(start) => bring({ start })} />
            <At near={offer.near} which="later" onChoose={(start) => bring({ start })} />
          </div>
        </div>
      )}
      {isErasing && entry.erased && (
        <EraseForm entry={entry} name={entry.erased} onClose={() => setErasing(false)} />
      )}
    </li>
  )
}

const isTaken = (error: unknown): error is ProblemError =>
  error instanceof ProblemError && error.type === 'urn:mortar:taken'

/** A free time that a booking can come back at. */
function At({
  near,
  which,
  onChoose,
}: {
  near: Nearest
  which: 'earlier' | 'later'
  onChoose: (start: string) => void
}) {
  const [time, start] =
    which === 'earlier' ? [near.earlier, near.earlierStart] : [near.later, near.laterStart]
  return time && time.form === 'clock' && start ? (
    <Button onClick={() => onChoose(start)}>Bring back at {startText(time.start)}</Button>
  ) : null
}

/** The events of an act, each with a way back by itself. */
function Things({
  entry,
  disabled,
  onBack,
}: {
  entry: BinEntry
  disabled: boolean
  onBack: (id: string) => void
}) {
  const [all, setAll] = useState(false)
  const rest = useQuery({ ...binnedEventsQuery(entry.place), enabled: all })
  const things = rest.data ?? entry.things
  const left = entry.count - things.length
  return (
    <ul className="mt-3 grid gap-1 border-t border-cement-200 pt-2 text-[13px]">
      {things.map((thing) => (
        <Thing key={thing.id} thing={thing} disabled={disabled} onBack={() => onBack(thing.id)} />
      ))}
      {left > 0 &&
        (all && rest.data ? (
          <li className="text-cement-700">and {left} more, which come back with all</li>
        ) : (
          <li>
            <Button look="link" onClick={() => setAll(true)}>
              Show {left} more
            </Button>
          </li>
        ))}
    </ul>
  )
}

function Thing({ thing, disabled, onBack }: { thing: BinnedThing; disabled: boolean; onBack: () => void }) {
  const title = thing.title === '' ? 'Untitled' : thing.title
  return (
    <li className="flex flex-wrap items-center gap-x-3">
      <span className="written min-w-48 flex-1">
        {title}
        {thing.time && <span className="text-cement-700"> · {whenText(thing.time)}</span>}
      </span>
      <Button look="link" disabled={disabled} onClick={onBack}>
        Bring back<span className="sr-only"> {title}</span>
      </Button>
    </li>
  )
}
