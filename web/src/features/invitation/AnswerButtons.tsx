import { useState } from 'react'
import { Button } from '../../ui/Button'
import { useAct } from '../../undo/useAct'
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
  const [gift, setGift] = useState<Gift | null>(null)
  const answer = useAct({
    run: (accept: boolean, set) =>
      accept
        ? acceptInvitation(invitationId, inReturn && gift ? gift : null, set)
        : declineInvitation(invitationId, set),
    say: (_, accept) =>
      accept ? `“${calendarName}” is a layer on your shelf now.` : `You declined “${calendarName}”.`,
    isFinal: () => true,
    freshen: 'all',
    onDone: (_, accept) => onAnswered(accept),
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
