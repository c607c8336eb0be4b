import { dateOf } from '../../model/times'
import { longDayText } from '../../reader/dates'
import { useReader } from '../../reader/person'
import type { Lane } from './lanes'

/** The days as columns under what lies on them, split into lanes; with a way to make something in each where there are hours. */
export function Columns({
  days,
  now,
  lanes,
  cells,
}: {
  days: readonly string[]
  now: string
  lanes: number
  cells?: { lanes: readonly Lane[]; onPlace: (day: string, lane: string) => void }
}) {
  const { isWeekend } = useReader()
  return (
    <>
      {days.map((day) => (
        <div
          key={day}
          data-weekend={isWeekend(day)}
          data-past={day < dateOf(now)}
          className="flex border-r border-cement-200 data-[weekend=true]:bg-cement-100"
        >
          {(
            cells?.lanes ?? Array.from({ length: lanes }, (_, index) => ({ key: String(index), name: '' }))
          ).map((lane) =>
            cells ? (
              // The day itself can be reached by Tab, so that Enter makes something in it.
              <div
                key={lane.key}
                className="relative min-w-0 flex-1 border-r border-cement-100 last:border-r-0"
              >
                <button
                  type="button"
                  data-cell={day}
                  onClick={(press) => {
                    if (press.detail === 0) cells.onPlace(day, lane.key)
                  }}
                  className="absolute inset-x-0 top-0 z-1 -translate-y-full bg-ink px-1 text-[11px] text-on-ink opacity-0 focus-visible:translate-y-0 focus-visible:opacity-100"
                >
                  New on {longDayText(day)}
                  {lane.name && `, ${lane.name}`}
                </button>
              </div>
            ) : (
              <div key={lane.key} className="min-w-0 flex-1 border-r border-cement-100 last:border-r-0" />
            ),
          )}
        </div>
      ))}
    </>
  )
}
