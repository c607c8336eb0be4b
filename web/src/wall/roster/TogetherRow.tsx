import type { Gap } from '../../model/availabilityQueries'
import { longDayText } from '../../reader/dates'
import { LightStrips, lightsOn } from '../bricks/Lights'
import { columnsOf } from './columnsOf'

interface TogetherRowProps {
  days: readonly string[]
  /** Undefined while they are not known. */
  gaps: readonly Gap[] | undefined
  /** Days before it have nothing to offer. */
  today: string
  onLit: ((gap: Gap) => void) | null
}

/** The roster's last row: when all whose rows are in view are free together, or what is proposed to them. */
export function TogetherRow({ days, gaps, today, onLit }: TogetherRowProps) {
  return (
    // biome-ignore lint/a11y/useSemanticElements: a table cannot lay bars across its cells
    // biome-ignore lint/a11y/useFocusableInteractive: what is in it takes the focus
    <div role="row" data-kind="together" className="flex min-h-9 border-t-2 border-cement-300 bg-cement-50">
      {/* biome-ignore lint/a11y/useSemanticElements: as above */}
      {/* biome-ignore lint/a11y/useFocusableInteractive: as above */}
      <div
        role="rowheader"
        className="sticky left-0 z-7 w-36 shrink-0 border-r border-cement-200 bg-cement-50 px-2 py-1.5 max-sm:w-28"
      >
        <span className="block leading-tight font-bold">{onLit ? 'Together' : 'Proposed'}</span>
        <span className="block text-[11px] text-cement-700">{onLit ? 'all are free' : 'to be settled'}</span>
      </div>
      <div className="grid flex-1" style={columnsOf(days)}>
        {days.map((day) => (
          // biome-ignore lint/a11y/useSemanticElements: as above
          // biome-ignore lint/a11y/useFocusableInteractive: as above
          <div
            key={day}
            role="gridcell"
            className="grid min-w-0 content-start gap-px border-r border-cement-200 px-[3px] py-1"
          >
            <span className="sr-only">
              {onLit ? 'Together' : 'Proposed'}, {longDayText(day)}
            </span>
            {gaps && <LightStrips day={day} gaps={gaps} most={2} onLit={onLit} />}
            {gaps && onLit && day >= today && lightsOn(gaps, day).length === 0 && (
              <span className="px-1 text-[11px] text-cement-600">none</span>
            )}
          </div>
        ))}
      </div>
    </div>
  )
}
