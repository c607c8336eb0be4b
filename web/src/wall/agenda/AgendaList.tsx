import { useMemo } from 'react'
import { type Brick, brickKey, timeOf, titleOf } from '../../model/bricks'
import { dateOf } from '../../model/times'
import { clockText, dayText, longDayText } from '../../reader/dates'
import { MarkBlock } from '../../ui/MarkSign'
import { LightStrips, lightsOn } from '../bricks/Lights'
import type { ViewProps } from '../viewProps'
import { bricksByDay } from './bricksByDay'

interface AgendaListProps
  extends Pick<ViewProps, 'days' | 'now' | 'bricks' | 'face'>,
    Partial<Pick<ViewProps, 'lit' | 'onLit'>> {
  zone: string
  /** The names of people by their ids. */
  names: ReadonlyMap<string, string>
  /** All of one calendar, with its notes: where there is no desk to read them on. */
  withNotes?: boolean
  /** Of one day that is named over it already. */
  bare?: boolean
}

/** Bricks by day. Ranges stand on the first of their days in view. */
export function AgendaList({
  days,
  now,
  zone,
  bricks,
  face,
  names,
  withNotes = false,
  bare = false,
  lit = [],
  onLit = null,
}: AgendaListProps) {
  const first = days[0] ?? ''
  const byDay = useMemo(() => bricksByDay(bricks, first, zone), [bricks, first, zone])
  return days
    .filter((day) => byDay.has(day) || lightsOn(lit, day).length > 0)
    .map((day) => (
      <section key={day} className="mb-4 break-inside-avoid">
        {!bare && (
          <h2
            data-today={day === dateOf(now)}
            data-past={day < dateOf(now)}
            className="sticky top-0 z-1 border-b-2 border-ink bg-surface py-1 text-base data-[past=true]:border-cement-300 data-[past=true]:text-cement-700"
          >
            {longDayText(day)}
            {day === dateOf(now) && (
              <span className="ml-2 bg-ink px-1.5 font-text text-[12px] text-on-ink">today</span>
            )}
          </h2>
        )}
        <LightStrips day={day} gaps={lit} most={6} onLit={onLit} />
        <ul>
          {byDay.get(day)?.map((brick) => (
            <Row
              key={brickKey(brick)}
              brick={brick}
              zone={zone}
              face={face}
              names={names}
              withNotes={withNotes}
            />
          ))}
        </ul>
      </section>
    ))
}

function Row({
  brick,
  zone,
  face,
  names,
  withNotes,
}: {
  brick: Brick
  zone: string
  face: ViewProps['face']
  names: ReadonlyMap<string, string>
  withNotes: boolean
}) {
  const shared = face(brick)
  if (!shared) return null
  const { layer, state, acts } = shared
  const event = brick.form === 'event' ? brick : null
  const who = event?.attendees.map((person) => names.get(person)).filter(Boolean) ?? []
  const elsewhere = event?.zone
    ? ` on the clock of ${event.zone.split('/').at(-1)?.replaceAll('_', ' ')}`
    : ''
  const notes = [event?.place, who.join(', '), event?.repeats && `${event.repeats}${elsewhere}`].filter(
    Boolean,
  )
  return (
    <li>
      <button
        type="button"
        data-brick={brickKey(brick)}
        data-hue={layer.hue}
        data-past={state.past}
        data-marked={state.marked}
        data-found={state.found}
        onClick={() => acts.onOpen(brick)}
        onKeyDown={(press) => acts.onBrickKey(press, brick)}
        className="relative flex w-full items-start gap-2 border-b border-cement-200 py-1.5 text-left hover:bg-cement-100 data-[found=false]:text-cement-600 data-[found=false]:bg-cement-50 data-[past=true]:text-cement-700"
      >
        <span className="w-28 shrink-0 font-bold tabular-nums max-sm:w-20">{whenText(brick, zone)}</span>
        <span className="flex text-layer-text">
          <MarkBlock mark={layer.mark} size={18} />
        </span>
        <span className="min-w-0 flex-1">
          <span className={`written font-bold ${event?.cancelled ? 'line-through' : ''}`}>
            {state.whose && `${state.whose}: `}
            {event ? titleOf(event.title, layer.purpose) : 'Busy'}
          </span>
          {!withNotes && <span className="written ml-2 text-[12px] text-cement-700">{layer.name}</span>}
          {event?.showAs === 'tentative' && <span className="ml-2 text-[12px] italic">tentative</span>}
          {state.clash !== undefined && (
            <span className="ml-2 text-[12px] font-bold text-clash">
              {state.clash ? 'clashes' : 'may clash'}
            </span>
          )}
          {notes.length > 0 && (
            <span className="written block text-[12px] text-cement-700">{notes.join(' · ')}</span>
          )}
          {withNotes && event?.notes && (
            <span className="written block text-[12px] whitespace-pre-line">{event.notes}</span>
          )}
        </span>
      </button>
    </li>
  )
}

/** "Mon 9", or "Mon 30 March" where the other end is in another month. */
const spanEnd = (day: string, other: string) =>
  day.slice(0, 7) === other.slice(0, 7) ? dayText(day) : longDayText(day)

function whenText(brick: Brick, zone: string): string {
  const time = timeOf(brick, zone)
  if (time.form === 'days') {
    if (time.toBeSet) return 'to be set'
    return time.first === time.last
      ? 'all day'
      : `${spanEnd(time.first, time.last)} – ${spanEnd(time.last, time.first)}`
  }
  return dateOf(time.start) === dateOf(time.end) || time.end.endsWith('00:00:00')
    ? `${clockText(time.start)} – ${clockText(time.end)}`
    : `${clockText(time.start)} – ${dayText(time.end)}, ${clockText(time.end)}`
}
