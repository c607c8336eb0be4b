import { dateOf } from '../../model/times'
import { longDayText, weekdayText } from '../../reader/dates'

interface WeekStripProps {
  days: readonly string[]
  now: string
  /** How many bricks lie on each day. */
  counts: readonly number[]
  /** The first of the days that are in sight, and how many are. */
  first: number
  inSight: number
  onDay: (day: string) => void
}

/** All days of a phone's week across, each with how full it is; those whose hours are in sight are marked. */
export function WeekStrip({ days, now, counts, first, inSight, onDay }: WeekStripProps) {
  const most = Math.max(1, ...counts)
  return (
    <div className="grid grid-cols-7 border-b border-cement-300 bg-cement-50 [@media(max-height:30rem)]:hidden print:hidden">
      {days.map((day, index) => {
        const count = counts[index] ?? 0
        return (
          <button
            key={day}
            type="button"
            aria-pressed={first <= index && index < first + inSight}
            aria-label={`${longDayText(day)}, ${count === 0 ? 'nothing' : count === 1 ? 'one event' : `${count} events`}`}
            data-today={day === dateOf(now)}
            onClick={() => onDay(day)}
            className="group grid min-h-11 content-center justify-items-center gap-0.5 border-t-3 border-transparent aria-pressed:border-ink aria-pressed:bg-surface"
          >
            <span className="text-[12px] leading-none text-cement-700">{weekdayText(day)}</span>{' '}
            <span className="rounded-control px-1 text-[14px] leading-tight font-bold group-data-[today=true]:bg-ink group-data-[today=true]:text-on-ink">
              {Number(day.slice(8))}
            </span>
            <Fullness share={count / most} />
          </button>
        )
      })}
    </div>
  )
}

/** How full a day is beside the fullest of those that are shown, as a course of that length. */
export function Fullness({ share }: { share: number }) {
  return (
    <span className="block h-1 w-4/5 bg-cement-200" aria-hidden="true">
      <span className="block h-full bg-cement-700" style={{ width: `${Math.round(share * 100)}%` }} />
    </span>
  )
}
