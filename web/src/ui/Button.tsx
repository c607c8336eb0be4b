import type { ReactNode } from 'react'

interface ButtonProps {
  children: ReactNode
  look?: 'main' | 'plain' | 'danger' | 'link'
  type?: 'button' | 'submit'
  disabled?: boolean
  /** For one that stays down. */
  pressed?: boolean
  wide?: boolean
  onClick?: () => void
}

const looks = {
  main: 'bg-ink text-on-ink px-4 py-2 font-bold hover:opacity-90',
  plain:
    'border border-cement-500 bg-surface px-3 py-1.5 hover:bg-cement-100 aria-pressed:border-ink aria-pressed:bg-ink aria-pressed:text-on-ink',
  danger: 'border border-clash bg-surface px-3 py-1.5 text-clash hover:bg-cement-100',
  link: 'underline underline-offset-2 hover:no-underline',
}

/** A button with words on it, a verb first. */
export function Button({
  children,
  look = 'plain',
  type = 'button',
  disabled,
  pressed,
  wide,
  onClick,
}: ButtonProps) {
  return (
    <button
      type={type}
      disabled={disabled}
      aria-pressed={pressed}
      onClick={onClick}
      className={`rounded-control transition-colors duration-quick disabled:opacity-50 ${wide ? 'w-full' : ''} ${looks[look]}`}
    >
      {children}
    </button>
  )
}
