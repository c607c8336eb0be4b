import { X } from 'lucide-react'
import { type ReactNode, useLayoutEffect, useRef } from 'react'
import { IconButton } from './IconButton'
import { useNarrow } from './useNarrow'

interface DeskProps {
  title: string
  onClose: () => void
  /** On a phone only half of it, since the wall beside it is to be pressed. */
  half?: boolean
  /** Where more is chosen beside it before one comes to it, the focus stays there. */
  stays?: boolean
  children: ReactNode
}

/** Whether the focus was in the desk that only waited for what comes in its place at this very moment; null where none did. */
let hadFocus: boolean | null = null

/** The panel beside the wall where one thing is read or changed while the wall stays in sight. */
export function Desk({ title, onClose, half = false, stays = false, children }: DeskProps) {
  const isNarrow = useNarrow()
  const desk = useRef<HTMLElement>(null)
  const heading = useRef<HTMLHeadingElement>(null)
  const covers = isNarrow && !half
  const waits = children === null
  useLayoutEffect(() => (covers ? coverWith(desk.current) : undefined), [covers])
  // Whoever lays something on it is led there and told what it is, unless a field of it has the focus already, or they went
  // elsewhere while it was coming; what is closed gives it back by itself (keptFocus).
  useLayoutEffect(() => {
    const here = desk.current
    const isMeant = hadFocus ?? !stays
    if (isMeant && !here?.contains(document.activeElement)) heading.current?.focus({ preventScroll: true })
    return () => {
      if (!waits) return
      hadFocus = here?.contains(document.activeElement) ?? false
      queueMicrotask(() => {
        hadFocus = null
      })
    }
  }, [stays, waits])
  return (
    <aside
      ref={desk}
      aria-label="Desk"
      data-half={half}
      className="flex w-80 shrink-0 flex-col border-l border-cement-300 bg-cement-50 max-sm:fixed max-sm:inset-0 max-sm:z-30 max-sm:w-full max-sm:data-[half=true]:top-1/2 max-sm:data-[half=true]:border-t-2 max-sm:data-[half=true]:border-ink"
    >
      <div className="flex items-start justify-between gap-2 px-4 pt-3">
        <h2
          ref={heading}
          tabIndex={-1}
          className="written max-h-[30vh] min-w-0 overflow-y-auto pt-0.5 text-lg"
        >
          {title}
        </h2>
        <IconButton label="Close the desk (Esc)" onClick={onClose}>
          <X size={18} />
        </IconButton>
      </div>
      {/* What only screen readers get lies in here too, and not below the page, which would have it scroll. */}
      <div className="relative min-h-0 flex-1 overflow-y-auto px-4 pt-2 pb-5">{children}</div>
    </aside>
  )
}

/** What lies under it cannot be come to while it covers all of the page; what is said over all pages can. */
function coverWith(desk: HTMLElement | null) {
  const covered: Element[] = []
  for (let at: Element | null = desk; at?.parentElement && at.id !== 'root'; at = at.parentElement) {
    if (at.matches('.page')) break
    covered.push(...[...at.parentElement.children].filter((beside) => beside !== at))
  }
  for (const one of covered) one.toggleAttribute('inert', true)
  return () => {
    for (const one of covered) one.toggleAttribute('inert', false)
  }
}
