import { type KeyboardEvent, type ReactNode, useState } from 'react'
import { Field } from '../ui/Field'
import { inputLook } from '../ui/TextField'

interface WrittenFieldProps {
  label: string
  /** What is set, as the reader writes it. */
  written: string
  /** Takes what was typed, once it is whole; answers whether it could be read. */
  onWritten: (text: string) => boolean
  /** One step earlier or later, by the arrow keys. */
  onStep: (by: number) => void
  /** What to type, said when it could not be read. */
  expected: string
  problem?: string
  hint?: string
  children?: ReactNode
}

/**
 * A date or time as the reader writes it. It is read when the field is left or Enter is pressed, so that half a date
 * never counts; what cannot be read stays, with what would do.
 */
export function WrittenField({
  label,
  written,
  onWritten,
  onStep,
  expected,
  problem,
  hint,
  children,
}: WrittenFieldProps) {
  const [draft, setDraft] = useState<string | null>(null)
  const [bad, setBad] = useState(false)
  const take = () => {
    if (draft === null) return
    const read = draft.trim() === written || onWritten(draft)
    setBad(!read)
    if (read) setDraft(null)
  }
  const onKeyDown = (event: KeyboardEvent) => {
    const by = { ArrowUp: 1, ArrowDown: -1 }[event.key]
    if (by && draft === null) {
      event.preventDefault()
      onStep(by)
    }
    if (event.key === 'Enter') take()
    if (event.key === 'Escape' && draft !== null) {
      event.stopPropagation()
      setDraft(null)
      setBad(false)
    }
  }
  return (
    <Field label={label} problem={bad ? expected : problem} hint={hint}>
      {({ id, describedBy, invalid }) => (
        <div className="relative">
          <input
            id={id}
            value={draft ?? written}
            onChange={(event) => setDraft(event.target.value)}
            onFocus={(event) => event.target.select()}
            onBlur={take}
            onKeyDown={onKeyDown}
            aria-describedby={describedBy}
            aria-invalid={invalid}
            autoComplete="off"
            className={inputLook}
          />
          {children}
        </div>
      )}
    </Field>
  )
}
