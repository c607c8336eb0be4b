import { ChevronLeft, ChevronRight } from 'lucide-react'
import { type FormEvent, useState } from 'react'
import { dateTyped } from '../reader/typed'
import { useActs } from '../undo/acts'

interface PeriodNavProps {
  title: string
  today: string
  onMove: (steps: number) => void
  onNow: () => void
  onGo: (date: string) => void
}

const buttonLook = 'grid h-8 place-items-center rounded-control border border-on-bar/40 hover:bg-on-bar/15'

/** Earlier, later, now, and what period the wall shows; pressing it, one can type where to go. */
export function PeriodNav({ title, today, onMove, onNow, onGo }: PeriodNavProps) {
  const [typed, setTyped] = useState<string | null>(null)
  const acts = useActs()
  const go = (event: FormEvent) => {
    event.preventDefault()
    const date = dateTyped(typed ?? '', today)
    if (date) {
      onGo(date)
      setTyped(null)
    } else acts.done(`“${typed}” is no date. Type 14 may, 2026-05-14, or +3w for three weeks on.`)
  }
  return (
    <div className="flex items-center gap-1.5 max-sm:order-last max-sm:w-full">
      <button
        type="button"
        aria-label="Earlier"
        title="Earlier  ["
        onClick={() => onMove(-1)}
        className={`${buttonLook} w-8`}
      >
        <ChevronLeft size={16} />
      </button>
      {typed === null ? (
        <h1 className="text-center font-head text-lg max-lg:text-base max-sm:flex-1">
          <button
            type="button"
            title="Go to a date"
            onClick={() => setTyped('')}
            className="min-w-44 rounded-control px-1 py-0.5 hover:bg-on-bar/15 max-sm:min-w-0"
          >
            {title}
          </button>
        </h1>
      ) : (
        <form onSubmit={go} className="max-sm:flex-1">
          <h1 className="sr-only">{title}</h1>
          <input
            aria-label="Go to a date"
            placeholder="14 may, +3w, 2026-05-14"
            value={typed}
            onChange={(event) => setTyped(event.target.value)}
            onBlur={() => setTyped(null)}
            onKeyDown={(event) => {
              if (event.key === 'Escape') {
                event.stopPropagation()
                setTyped(null)
              }
            }}
            // biome-ignore lint/a11y/noAutofocus: the field stands where the person just pressed
            autoFocus
            className="w-52 rounded-control bg-surface px-2 py-1 text-ink"
          />
        </form>
      )}
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
