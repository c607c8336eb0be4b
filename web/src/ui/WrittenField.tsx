import { type KeyboardEvent, type ReactNode, useLayoutEffect, useRef, useState } from 'react'
import { Field } from './Field'
import { inputLook } from './TextField'

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
 * never counts; what cannot be read stays, with what would do, and keeps its form from being sent: what stood there before
 * is not what was meant.
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
  const input = useRef<HTMLInputElement>(null)
  // Set from elsewhere, as from the month beside it: that is what is meant then.
  const [before, setBefore] = useState(written)
  if (before !== written) {
    setBefore(written)
    setDraft(null)
    setBad(false)
  }
  useLayoutEffect(() => {
    const form = input.current?.form
    if (!bad || !form) return
    const hold = (event: Event) => {
      event.preventDefault()
      event.stopImmediatePropagation()
      input.current?.focus()
    }
    form.addEventListener('submit', hold, true)
    return () => form.removeEventListener('submit', hold, true)
  }, [bad])
  const take = (): boolean => {
    if (draft === null) return true
    const read = draft.trim() === written || onWritten(draft)
    setBad(!read)
    if (read) setDraft(null)
    return read
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
            ref={input}
            id={id}
            value={draft ?? written}
            onChange={(event) => setDraft(event.target.value)}
            onFocus={(event) => event.target.select()}
            onBlur={({ relatedTarget }) => {
              const isSent = relatedTarget instanceof HTMLButtonElement && relatedTarget.type === 'submit'
              // What is said under the field moves the button from under the pointer, so that its press may never come.
              if (!take() && isSent) setTimeout(() => input.current?.focus())
            }}
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
