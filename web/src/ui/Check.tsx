import type { ReactNode } from 'react'

interface CheckProps {
  label: ReactNode
  /** What it means, under it. */
  hint?: ReactNode
  checked: boolean
  disabled?: boolean
  onChange: (checked: boolean) => void
}

/** Something that is so or is not. */
export function Check({ label, hint, checked, disabled, onChange }: CheckProps) {
  return (
    <label className="flex min-h-6 items-start gap-2">
      <input
        type="checkbox"
        checked={checked}
        disabled={disabled}
        onChange={(event) => onChange(event.target.checked)}
        className="mt-0.5 size-4 shrink-0 accent-ink"
      />
      <span className="min-w-0">
        {label}
        {hint && <span className="block text-[12px] text-cement-700">{hint}</span>}
      </span>
    </label>
  )
}
