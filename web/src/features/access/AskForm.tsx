import { useState } from 'react'
import { sentenceOf } from '../../api/problem'
import { askFor } from '../../model/accessQueries'
import { lowerSteps, type Role, reaches } from '../../model/ladder'
import { Alert } from '../../ui/Alert'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { TextField } from '../../ui/TextField'
import { useAct } from '../../undo/useAct'

interface AskFormProps {
  calendarIds: readonly string[]
  /** The step one has on what one knows; without it, whether there are such calendars is not told. */
  above?: Role
  onAsked: () => void
}

/** Asks the coordinators of some calendars for access, or for more, with a note. */
export function AskForm({ calendarIds, above, onAsked }: AskFormProps) {
  const steps = above ? lowerSteps.filter((step) => !reaches(above, step.value)) : lowerSteps
  const [role, setRole] = useState<Role>(above ? (steps[0]?.value ?? 'view') : 'view')
  const [note, setNote] = useState('')
  const ask = useAct({
    run: async () => {
      for (const id of calendarIds) await askFor(id, role, note)
    },
    say: () =>
      above
        ? 'Asked. A coordinator will answer; it arrives in your inbox.'
        : 'Asked. If the address is right, a coordinator will answer; it arrives in your inbox.',
    isFinal: () => true,
    freshen: [],
    onDone: onAsked,
    saysItself: true,
  })
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault()
        ask.mutate()
      }}
      className="flex w-full flex-wrap items-end gap-2 pb-1"
    >
      <div className="w-32">
        <Choice label="Ask for" value={role} onChange={setRole} options={steps} />
      </div>
      <div className="w-80">
        <TextField
          label="A note"
          value={note}
          onChange={setNote}
          placeholder="Who you are, and what it is for"
          autoComplete="off"
        />
      </div>
      <Button type="submit" look="main" disabled={ask.isPending}>
        Ask
      </Button>
      {ask.isError && <Alert>{sentenceOf(ask.error)}</Alert>}
    </form>
  )
}
