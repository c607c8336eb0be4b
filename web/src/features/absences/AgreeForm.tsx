import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { wallKeys } from '../../api/topics'
import { Button } from '../../ui/Button'
import { TextField } from '../../ui/TextField'
import { newSet, useActs } from '../../undo/acts'
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
  const queries = useQueryClient()
  const acts = useActs()
  const [comment, setComment] = useState('')
  const answer = useMutation({
    mutationFn: async (agrees: boolean) => {
      const set = newSet()
      await agreeToEvent(eventId, version, { agrees, comment }, set)
      return { set, agrees }
    },
    onSuccess: ({ set, agrees }) => {
      acts.done(
        agrees ? `Agreed: ${who} is away.` : `Not agreed: it is off the plan, and ${who} is told.`,
        set,
      )
      onDone?.()
    },
    onError: (error) => acts.failed(error),
    onSettled: () => {
      for (const key of [...wallKeys, 'inbox']) void queries.invalidateQueries({ queryKey: [key] })
    },
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
