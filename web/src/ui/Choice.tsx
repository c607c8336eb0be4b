import { Field } from './Field'
import { inputLook } from './TextField'

interface ChoiceProps<T extends string> {
  label: string
  value: T
  onChange: (value: T) => void
  options: readonly { value: T; label: string }[]
  problem?: string
  hint?: string
}

/** One of a list, by the system's own control: it is known to every screen reader and every thumb. */
export function Choice<T extends string>({ label, value, onChange, options, problem, hint }: ChoiceProps<T>) {
  return (
    <Field label={label} problem={problem} hint={hint}>
      {({ id, describedBy, invalid }) => (
        <select
          id={id}
          value={value}
          onChange={(event) => {
            const chosen = options.find((option) => option.value === event.target.value)
            if (chosen) onChange(chosen.value)
          }}
          aria-describedby={describedBy}
          aria-invalid={invalid}
          className={inputLook}
        >
          {options.map((option) => (
            <option key={option.value} value={option.value}>
              {option.label}
            </option>
          ))}
        </select>
      )}
    </Field>
  )
}
