import { useQuery } from '@tanstack/react-query'
import { useId, useState } from 'react'
import { fieldProblem } from '../../api/problem'
import { askByName } from '../../model/accessQueries'
import { groupQueries } from '../../model/groupQueries'
import { lowerSteps, type Role } from '../../model/ladder'
import { Alert } from '../../ui/Alert'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { Desk } from '../../ui/Desk'
import { FormProblem } from '../../ui/FormProblem'
import { Note } from '../../ui/Note'
import { TextArea } from '../../ui/TextArea'
import { inputLook } from '../../ui/TextField'
import { useAct } from '../../undo/useAct'

interface AskDeskProps {
  /** Whom, where that is known already. */
  to?: string
  groupId: string | undefined
  onClose: () => void
}

/** Asks a person or a group for a calendar of theirs, by name or address. Whether they are here is not told. */
export function AskDesk({ to: whom = '', groupId, onClose }: AskDeskProps) {
  const id = useId()
  const members = useQuery({ ...groupQueries.members(groupId ?? ''), enabled: groupId !== undefined })
  const [to, setTo] = useState(whom)
  const [role, setRole] = useState<Role>('times')
  const [note, setNote] = useState('')
  const known = members.data?.find((one) => one.name.toLowerCase() === to.trim().toLowerCase())
  const ask = useAct({
    run: () => askByName(to, role, note),
    say: () => 'Asked. If there is somebody or a group of that name, the answer arrives in your inbox.',
    isFinal: () => true,
    freshen: [],
    onDone: onClose,
    saysItself: true,
  })
  const problem = fieldProblem(ask.error, 'to')
  return (
    <Desk title="Ask for a calendar" onClose={onClose}>
      <form
        onSubmit={(event) => {
          event.preventDefault()
          ask.mutate()
        }}
        className="grid gap-3"
      >
        <div className="grid gap-1">
          <label htmlFor={id} className="text-[12px] text-cement-700">
            Whose: a mail address, or the name of a person or group
          </label>
          <input
            id={id}
            list={`${id}-known`}
            value={to}
            onChange={(event) => setTo(event.target.value)}
            aria-invalid={problem !== undefined}
            autoComplete="off"
            // biome-ignore lint/a11y/noAutofocus: the desk was opened to write this
            autoFocus
            className={inputLook}
          />
          <datalist id={`${id}-known`}>
            {(members.data ?? []).map((one) => (
              <option key={one.personId} value={one.name} />
            ))}
          </datalist>
          {problem && <Alert>{problem}</Alert>}
          {known?.showsBusy && (
            <p className="written border-l-4 border-ok pl-2">
              {known.name} lets people of their groups see when they are busy: those hours are in the roster
              already.
            </p>
          )}
        </div>
        <Choice label="Ask for" value={role} onChange={setRole} options={lowerSteps} />
        <TextArea label="A note: who you are, and what it is for" value={note} onChange={setNote} rows={4} />
        <Note>They choose which calendar, and may give less or more than you ask for.</Note>
        <FormProblem error={ask.error} fields={['to']} />
        <Button type="submit" look="main" wide disabled={to.trim() === '' || ask.isPending}>
          Ask
        </Button>
      </form>
    </Desk>
  )
}
