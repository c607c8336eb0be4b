import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Button } from '../../ui/Button'
import { newSet, useActs } from '../../undo/acts'
import { type Gift, InReturnField } from './InReturnField'
import { acceptInvitation, declineInvitation } from './invitationQueries'

interface AnswerButtonsProps {
  invitationId: string
  calendarName: string
  /** Who sent it. */
  from: string
  /** Whether they ask for a calendar in return. */
  inReturn: boolean
  onAnswered: (accepted: boolean) => void
}

/** Accept or decline, in the inbox and under a mailed link alike. */
export function AnswerButtons({
  invitationId,
  calendarName,
  from,
  inReturn,
  onAnswered,
}: AnswerButtonsProps) {
  const queries = useQueryClient()
  const acts = useActs()
  const [gift, setGift] = useState<Gift | null>(null)
  const answer = useMutation({
    mutationFn: (accept: boolean) =>
      accept
        ? acceptInvitation(invitationId, inReturn && gift ? gift : null, newSet())
        : declineInvitation(invitationId, newSet()),
    onSuccess: async (_, accept) => {
      acts.done(
        accept ? `“${calendarName}” is a layer on your shelf now.` : `You declined “${calendarName}”.`,
      )
      await queries.invalidateQueries()
      onAnswered(accept)
    },
    onError: (error) => {
      acts.failed(error)
      void queries.invalidateQueries()
    },
  })
  return (
    <div className="grid gap-3">
      {inReturn && <InReturnField from={from} gift={gift} onGift={setGift} />}
      <div className="flex gap-2">
        <Button look="main" disabled={answer.isPending} onClick={() => answer.mutate(true)}>
          Accept
        </Button>
        <Button disabled={answer.isPending} onClick={() => answer.mutate(false)}>
          Decline
        </Button>
      </div>
    </div>
  )
}
