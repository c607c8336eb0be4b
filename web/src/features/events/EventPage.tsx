import { clockText, daysText, lengthText, longDayText } from '../../app/dates'
import { Button } from '../../ui/Button'
import { MarkBlock } from '../../ui/MarkSign'
import { type EventBrick, type Layer, type Time, titleOf } from '../wall/bricks'
import { Desk } from '../wall/Desk'
import { dateOf, minutesBetween } from '../wall/times'
import { EventHistory } from './EventHistory'
import { showAsChoices } from './eventForm'

interface EventPageProps {
  brick: Omit<EventBrick, 'form'>
  layer: Layer
  /** The names of people by their ids. */
  names: ReadonlyMap<string, string>
  /** Lays it on the desk to be changed; undefined where the reader may not. */
  onEdit: (() => void) | undefined
  onClose: () => void
}

/** An event that is read, by somebody who may not change it. */
export function EventPage({ brick, layer, names, onEdit, onClose }: EventPageProps) {
  const rows: [string, string | null][] = [
    ['When', whenText(brick.time)],
    ['Repeats', brick.repeats],
    ['Who', brick.attendees.map((id) => names.get(id) ?? 'somebody else').join(', ')],
    ['Organizer', brick.organizer ? (names.get(brick.organizer) ?? 'somebody else') : null],
    ['Kind', brick.kind],
    [`In ${brick.zone?.replaceAll('_', ' ')}`, brick.agreed && whenText(brick.agreed)],
    ['Where', brick.place],
    ['Counts as', showAsChoices.find((choice) => choice.value === brick.showAs)?.label ?? null],
    ['Notes', brick.notes],
  ]
  return (
    <Desk title={titleOf(brick.title)} onClose={onClose}>
      <p
        data-hue={layer.hue}
        className="mb-4 flex items-stretch border border-layer-edge bg-layer-tint font-bold text-layer-text"
      >
        <MarkBlock mark={layer.mark} size={26} />
        <span className="written px-2.5 py-1.5">{layer.name}</span>
      </p>
      <dl className="grid gap-3">
        {brick.cancelled && <p className="font-bold text-clash">Called off</p>}
        {rows.map(
          ([name, value]) =>
            value && (
              <div key={name}>
                <dt className="text-[12px] text-cement-700">{name}</dt>
                <dd className="written whitespace-pre-line">
                  {name === 'Notes' ? <Linked text={value} /> : value}
                </dd>
              </div>
            ),
        )}
      </dl>
      {onEdit ? (
        <div className="mt-5">
          <Button look="main" onClick={onEdit}>
            Change it
          </Button>
        </div>
      ) : (
        <p className="mt-5 text-[12px] text-cement-700">
          You can read this calendar. To change it, ask a coordinator for another step.
        </p>
      )}
      <EventHistory calendarId={brick.calendarId} eventId={brick.eventId} only={brick.only} />
    </Desk>
  )
}

/** When something is, in words. */
function whenText(time: Time): string {
  if (time.form === 'days')
    return `${daysText(time.first, time.last)}${time.toBeSet ? ', times to be set' : ''}`
  return dateOf(time.start) === dateOf(time.end)
    ? `${longDayText(time.start)}, ${clockText(time.start)} – ${clockText(time.end)} (${lengthText(minutesBetween(time.start, time.end))})`
    : `${longDayText(time.start)}, ${clockText(time.start)} to ${longDayText(time.end)}, ${clockText(time.end)}`
}

/** Text in which addresses of the web can be followed. */
function Linked({ text }: { text: string }) {
  return text.split(/(https?:\/\/[^\s<>"]+)/).map((part, index) =>
    index % 2 === 1 ? (
      // biome-ignore lint/suspicious/noArrayIndexKey: the parts of one text stand where they stand
      <a key={index} href={part} target="_blank" rel="noreferrer noopener" className="underline">
        {part}
      </a>
    ) : (
      part
    ),
  )
}
