import { Field } from './Field'
import { inputLook } from './TextField'

interface TextAreaProps {
  label: string
  value: string
  onChange: (value: string) => void
  rows?: number
  problem?: string
  hint?: string
}

/** Several lines of text. */
export function TextArea({ label, value, onChange, rows = 4, problem, hint }: TextAreaProps) {
  return (
    <Field label={label} problem={problem} hint={hint}>
      {({ id, describedBy, invalid }) => (
        <textarea
          id={id}
          rows={rows}
          value={value}
          onChange={(event) => onChange(event.target.value)}
          aria-describedby={describedBy}
          aria-invalid={invalid}
          className={`${inputLook} resize-y`}
        />
      )}
    </Field>
  )
}
