import { Field } from './Field'

interface TextFieldProps {
  label: string
  value: string
  onChange: (value: string) => void
  type?: 'text' | 'email' | 'password' | 'number' | 'date' | 'time'
  problem?: string
  hint?: string
  required?: boolean
  autoFocus?: boolean
  placeholder?: string
  autoComplete?: string
  suggestions?: { value: string; label: string }[]
}

export const inputLook =
  'w-full min-w-0 rounded-control border border-cement-500 bg-surface px-2 py-1.5 aria-invalid:border-clash aria-invalid:border-2'

/** One line of text. */
export function TextField({
  label,
  value,
  onChange,
  type = 'text',
  problem,
  hint,
  suggestions,
  autoFocus,
  ...rest
}: TextFieldProps) {
  return (
    <Field label={label} problem={problem} hint={hint}>
      {({ id, describedBy, invalid }) => (
        <>
          <input
            id={id}
            type={type}
            value={value}
            onChange={(event) => onChange(event.target.value)}
            aria-describedby={describedBy}
            aria-invalid={invalid}
            list={suggestions ? `${id}-list` : undefined}
            className={inputLook}
            // biome-ignore lint/a11y/noAutofocus: the desk opens by the person's own act and its first field is what they came for
            autoFocus={autoFocus}
            {...rest}
          />
          {suggestions && (
            <datalist id={`${id}-list`}>
              {suggestions.map((one) => (
                <option key={one.value} value={one.value}>
                  {one.label}
                </option>
              ))}
            </datalist>
          )}
        </>
      )}
    </Field>
  )
}
