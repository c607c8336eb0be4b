import { useState } from 'react'
import { Button } from '../../ui/Button'
import { TextField } from '../../ui/TextField'
import { useAct } from '../../undo/useAct'
import { agreeToEvent } from './absenceQueries'

interface AgreeFormProps {
  eventId: string
  version: number
  /** Whose absence it is, for what is said afterwards. */
  who: string
  onDone?: () => void
}

/** A coordinator's yes or no to an absence, with a word to who entered it. */
export function AgreeForm({ eventId, version, who, onDone }: AgreeFormProps) {
  const [comment, setComment] = useState('')
  const answer = useAct({
    run: (agrees: boolean, set) => agreeToEvent(eventId, version, { agrees, comment }, set),
    say: (_, agrees) =>
      agrees ? `Agreed: ${who} is away.` : `Not agreed: it is off the plan, and ${who} is told.`,
    freshen: ['wall', 'inbox'],
    onDone: () => onDone?.(),
  })
  return (
    <div className="flex flex-wrap items-end gap-2">
      <div className="min-w-48 flex-1">
        <TextField
          label="A word to them"
          value={comment}
          onChange={setComment}
          placeholder="may stay empty"
        />
      </div>
      <Button look="main" disabled={answer.isPending} onClick={() => answer.mutate(true)}>
        Agree
      </Button>
      <Button disabled={answer.isPending} onClick={() => answer.mutate(false)}>
        Do not agree
      </Button>
    </div>
  )
}
