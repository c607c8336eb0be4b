import { X } from 'lucide-react'
import { type ReactNode, useEffect } from 'react'
import { IconButton } from './IconButton'

interface DeskProps {
  title: string
  onClose: () => void
  /** On a phone only half of it, since the wall beside it is to be pressed. */
  half?: boolean
  children: ReactNode
}

/** The panel beside the wall where one thing is read or changed while the wall stays in sight. */
export function Desk({ title, onClose, half = false, children }: DeskProps) {
  // What had the focus before has it again when the desk is closed: nobody is thrown to the top of the page.
  useEffect(() => {
    const before = document.activeElement
    return () => {
      const isLost = document.activeElement === null || document.activeElement === document.body
      if (isLost && before instanceof HTMLElement && before.isConnected) before.focus({ preventScroll: true })
    }
  }, [])
  return (
    <aside
      aria-label="Desk"
      data-half={half}
      className="flex w-80 shrink-0 flex-col border-l border-cement-300 bg-cement-50 max-sm:fixed max-sm:inset-0 max-sm:z-30 max-sm:w-full max-sm:data-[half=true]:top-1/2 max-sm:data-[half=true]:border-t-2 max-sm:data-[half=true]:border-ink"
    >
      <div className="flex items-start justify-between gap-2 px-4 pt-3">
        <h2 className="written min-w-0 pt-0.5 text-lg">{title}</h2>
        <IconButton label="Close the desk (Esc)" onClick={onClose}>
          <X size={18} />
        </IconButton>
      </div>
      {/* What only screen readers get lies in here too, and not below the page, which would have it scroll. */}
      <div className="relative min-h-0 flex-1 overflow-y-auto px-4 pt-2 pb-5">{children}</div>
    </aside>
  )
}
