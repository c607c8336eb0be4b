import { useMutation, useQueryClient } from '@tanstack/react-query'
import { newSet, useActs } from '../../app/acts'
import { Button } from '../../ui/Button'
import { acceptInvitation, declineInvitation } from './invitationQueries'

interface AnswerButtonsProps {
  invitationId: string
  calendarName: string
  onAnswered: (accepted: boolean) => void
}

/** Accept or decline, in the inbox and under a mailed link alike. */
export function AnswerButtons({ invitationId, calendarName, onAnswered }: AnswerButtonsProps) {
  const queries = useQueryClient()
  const acts = useActs()
  const answer = useMutation({
    mutationFn: (accept: boolean) => (accept ? acceptInvitation : declineInvitation)(invitationId, newSet()),
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
    <div className="flex gap-2">
      <Button look="main" disabled={answer.isPending} onClick={() => answer.mutate(true)}>
        Accept
      </Button>
      <Button disabled={answer.isPending} onClick={() => answer.mutate(false)}>
        Decline
      </Button>
    </div>
  )
}
