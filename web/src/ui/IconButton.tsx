import type { ReactNode } from 'react'

interface IconButtonProps {
  label: string
  tone?: 'plain' | 'onInk'
  onClick: () => void
  children: ReactNode
}

/** A button that is only a sign; its name is for those who cannot see it, and shown on hover. */
export function IconButton({ label, tone = 'plain', onClick, children }: IconButtonProps) {
  return (
    <button
      type="button"
      aria-label={label}
      title={label}
      onClick={onClick}
      data-tone={tone}
      className="grid size-8 shrink-0 place-items-center rounded-control hover:bg-cement-200 data-[tone=onInk]:hover:bg-cement-500/40"
    >
      {children}
    </button>
  )
}
