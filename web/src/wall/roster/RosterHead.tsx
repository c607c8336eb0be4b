import { ArrowDownAZ } from 'lucide-react'
import { dateOf } from '../../model/times'
import { dayText, longDayText } from '../../reader/dates'
import { columnsOf } from './columnsOf'
import type { RosterOrder } from './useRosterOrder'

interface RosterHeadProps {
  days: readonly string[]
  now: string
  order: RosterOrder
}

/** The names of the days, and which rows are shown in which order. */
export function RosterHead({ days, now, order: { filter, setFilter, byLoad, setByLoad } }: RosterHeadProps) {
  const columns = columnsOf(days)
  return (
    // biome-ignore lint/a11y/useSemanticElements: a table cannot lay bars across its cells
    // biome-ignore lint/a11y/useFocusableInteractive: the cells take the focus
    <div role="row" className="sticky top-0 z-6 flex border-b border-cement-300 bg-cement-50">
      {/* biome-ignore lint/a11y/useSemanticElements: as above */}
      {/* biome-ignore lint/a11y/useFocusableInteractive: as above */}
      <div
        role="columnheader"
        className="sticky left-0 z-7 flex w-36 shrink-0 items-center gap-1 border-r border-cement-200 bg-cement-50 px-1.5 max-sm:w-28"
      >
        <input
          aria-label="Filter rows"
          placeholder="Filter"
          value={filter}
          onChange={(event) => setFilter(event.target.value)}
          className="w-full min-w-0 rounded-control border border-cement-300 bg-surface px-1.5 py-0.5 text-[12px]"
        />
        <button
          type="button"
          aria-pressed={byLoad}
          aria-label="Fullest rows first"
          title="Fullest rows first"
          onClick={() => setByLoad(!byLoad)}
          className="grid size-6 shrink-0 place-items-center rounded-control hover:bg-cement-200 aria-pressed:bg-ink aria-pressed:text-on-ink"
        >
          <ArrowDownAZ size={14} aria-hidden="true" />
        </button>
      </div>
      <div className="grid flex-1" style={columns}>
        {days.map((day) => (
          // biome-ignore lint/a11y/useSemanticElements: as above
          // biome-ignore lint/a11y/useFocusableInteractive: as above
          <div
            key={day}
            role="columnheader"
            data-day={day}
            data-today={day === dateOf(now)}
            title={longDayText(day)}
            className="min-w-0 truncate border-r border-cement-200 px-2 py-1.5 text-[13px] font-bold data-[today=true]:bg-ink data-[today=true]:text-on-ink"
          >
            {dayText(day)}
            {day === dateOf(now) && <span className="font-normal max-sm:sr-only"> today</span>}
          </div>
        ))}
      </div>
    </div>
  )
}
