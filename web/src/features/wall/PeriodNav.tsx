import { ChevronLeft, ChevronRight } from 'lucide-react'
import { periodText } from '../../app/dates'

interface PeriodNavProps {
  first: string
  last: string
  onMove: (steps: number) => void
  onNow: () => void
}

const buttonLook = 'grid h-8 place-items-center rounded-control border border-on-bar/40 hover:bg-on-bar/15'

/** Earlier, later, now, and what period the wall shows. */
export function PeriodNav({ first, last, onMove, onNow }: PeriodNavProps) {
  return (
    <div className="flex items-center gap-2 max-sm:order-last max-sm:w-full">
      <button
        type="button"
        aria-label="Earlier"
        title="Earlier  ["
        onClick={() => onMove(-1)}
        className={`${buttonLook} w-8`}
      >
        <ChevronLeft size={16} />
      </button>
      <h1 className="min-w-56 text-center font-head text-lg max-sm:min-w-0 max-sm:flex-1 max-sm:text-base">
        {periodText(first, last)}
      </h1>
      <button
        type="button"
        aria-label="Later"
        title="Later  ]"
        onClick={() => onMove(1)}
        className={`${buttonLook} w-8`}
      >
        <ChevronRight size={16} />
      </button>
      <button type="button" title="Now  ." onClick={onNow} className={`${buttonLook} px-3`}>
        Now
      </button>
    </div>
  )
}
