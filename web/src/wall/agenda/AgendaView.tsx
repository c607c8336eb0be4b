import { addDays } from '../../model/times'
import { DateField } from '../../ui/DateField'
import type { ViewProps } from '../viewProps'
import { AgendaList } from './AgendaList'

interface AgendaViewProps extends ViewProps {
  zone: string
  /** The names of people by their ids. */
  names: ReadonlyMap<string, string>
  /** Shows another range, from its first to its last day. */
  onRange: (first: string, last: string) => void
}

/** A list by day: the one to print, and to read aloud. Ranges stand on the first of their days in view. */
export function AgendaView({
  days,
  now,
  zone,
  bricks,
  face,
  names,
  lit,
  onLit,
  onPlace,
  onRange,
}: AgendaViewProps) {
  const first = days[0] ?? ''
  const last = days.at(-1) ?? ''
  const isEmpty = bricks.every((brick) => face(brick) === undefined)
  return (
    <section
      aria-label="Wall"
      className="min-h-0 min-w-0 flex-1 overflow-y-auto bg-surface"
      data-scroller="true"
    >
      <div className="mx-auto max-w-3xl px-6 py-4 max-sm:px-3">
        <div className="mb-4 grid max-w-sm grid-cols-[repeat(auto-fit,minmax(9.75rem,1fr))] gap-2 print:hidden">
          <DateField
            label="From"
            value={first}
            onChange={(day) => onRange(day, day > last ? addDays(day, days.length - 1) : last)}
          />
          <DateField
            label="To"
            value={last}
            onChange={(day) => (day < first ? onRange(day, day) : onRange(first, day))}
          />
        </div>
        {isEmpty && (
          <p className="py-12 text-center text-cement-700">
            Nothing on these days.{' '}
            <button type="button" className="underline" onClick={() => onPlace(days[0] ?? '', '')}>
              Add the first event
            </button>
          </p>
        )}
        <AgendaList
          days={days}
          now={now}
          zone={zone}
          bricks={bricks}
          face={face}
          names={names}
          lit={lit}
          onLit={onLit}
        />
      </div>
    </section>
  )
}
