import type { CSSProperties } from 'react'
import { dateOf } from '../../model/times'
import { dayText, longDayText } from '../../reader/dates'
import type { Lane } from './lanes'

interface WeekHeadProps {
  days: readonly string[]
  lanes: readonly Lane[]
  now: string
  grid: CSSProperties
}

/** The names of the days, and of their lanes. */
export function WeekHead({ days, lanes, now, grid }: WeekHeadProps) {
  const isToday = (day: string) => day === dateOf(now)
  return (
    <div className="grid flex-1" style={grid}>
      {days.map((day) => (
        <div key={day} data-day={day} className="min-w-0 snap-start border-r border-cement-200">
          <h2
            data-today={isToday(day)}
            className="truncate px-2 py-1.5 font-text text-[13px] data-[today=true]:bg-ink data-[today=true]:text-on-ink"
            title={longDayText(day)}
          >
            {dayText(day)}
            {isToday(day) && <span className="font-normal"> today</span>}
          </h2>
          {lanes.length > 1 && (
            <div className="flex border-t border-cement-200">
              {lanes.map((lane) => (
                <span
                  key={lane.key}
                  title={lane.name}
                  className="written min-w-0 flex-1 truncate border-r border-cement-200 px-1.5 py-0.5 text-[11px] text-cement-700 last:border-r-0"
                >
                  {lane.name}
                </span>
              ))}
            </div>
          )}
        </div>
      ))}
    </div>
  )
}
