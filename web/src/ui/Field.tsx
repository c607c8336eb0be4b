import { type ReactNode, useId } from 'react'

interface FieldProps {
  label: string
  problem?: string
  hint?: string
  children: (ids: { id: string; describedBy: string | undefined; invalid: boolean }) => ReactNode
}

/** A control with its name over it, a hint and what is wrong with it under it. */
export function Field({ label, problem, hint, children }: FieldProps) {
  const id = useId()
  const note = problem ?? hint
  return (
    <div className="grid min-w-0 content-start gap-1">
      <label htmlFor={id} className="text-[12px] text-cement-700">
        {label}
      </label>
      {children({ id, describedBy: note ? `${id}-note` : undefined, invalid: problem !== undefined })}
      {note && (
        <p
          id={`${id}-note`}
          data-bad={problem !== undefined}
          className="text-[12px] text-cement-700 data-[bad=true]:text-clash"
        >
          {note}
        </p>
      )}
    </div>
  )
}
