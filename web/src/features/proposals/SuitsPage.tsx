import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useParams } from 'react-router'
import { sentenceOf } from '../../api/problem'
import { Alert } from '../../ui/Alert'
import { Gate } from '../../ui/Gate'
import { proposalByLink, type Suiting, saySuitsByLink } from './proposalQueries'
import { SuitsForm } from './SuitsForm'

/** Which of several times suit, asked by mail: said without an account. */
export function SuitsPage() {
  const { secret = '' } = useParams()
  const queries = useQueryClient()
  const question = useQuery(proposalByLink(secret))
  const answer = useMutation({
    mutationFn: (wish: { said: { at: string; suits: Suiting }[]; comment: string }) =>
      saySuitsByLink(secret, wish),
    onSettled: () => void queries.invalidateQueries({ queryKey: ['suits', secret] }),
  })
  if (question.isError)
    return (
      <Gate title="This link leads nowhere">
        <p className="mb-4">{sentenceOf(question.error)}</p>
        <p className="text-cement-700">A newer mail has another link. Else ask the person who sent it.</p>
      </Gate>
    )
  if (!question.data) return <Gate title="A question">{null}</Gate>
  const { asked, zone, over } = question.data
  return (
    <Gate title={asked.title}>
      <div className="grid gap-3">
        {over ? (
          <p role="status">{over}</p>
        ) : (
          <>
            <p className="written">
              {asked.from} asks which of these times suit {asked.name}. They are on the clocks of {zone}.
              {asked.place && <span className="block">{asked.place}</span>}
            </p>
            {asked.notes && <p className="written whitespace-pre-line">{asked.notes}</p>}
            <SuitsForm
              asked={asked}
              isBusy={answer.isPending}
              onSay={(said, comment) => answer.mutate({ said, comment })}
            />
            {answer.isSuccess && (
              <p role="status">{asked.from} reads it. You can change it here until a time is settled.</p>
            )}
          </>
        )}
        {answer.isError && <Alert>{sentenceOf(answer.error)}</Alert>}
      </div>
    </Gate>
  )
}
