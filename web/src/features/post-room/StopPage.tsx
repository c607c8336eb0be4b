import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useParams } from 'react-router'
import { api, unwrap } from '../../api/client'
import { ProblemError, sentenceOf } from '../../api/problem'
import { Alert } from '../../ui/Alert'
import { Button } from '../../ui/Button'
import { Gate } from '../../ui/Gate'

const path = (token: string) => ({ params: { path: { token } } })

/** Stops all mail from here to one address, or has it come again; by a link in each mail, without an account. */
export function StopPage() {
  const { token = '' } = useParams()
  const queries = useQueryClient()
  const key = ['mail-stops', token]
  const stop = useQuery({
    queryKey: key,
    queryFn: ({ signal }) => unwrap(api.GET('/api/mail-stops/{token}', { ...path(token), signal })),
    retry: false,
  })
  const change = useMutation({
    mutationFn: (stops: boolean) =>
      unwrap(
        stops
          ? api.POST('/api/mail-stops/{token}', path(token))
          : api.DELETE('/api/mail-stops/{token}', path(token)),
      ),
    onSettled: () => void queries.invalidateQueries({ queryKey: key }),
  })
  if (stop.isError)
    return (
      <Gate title="This link leads nowhere">
        <p>
          {stop.error instanceof ProblemError && stop.error.status === 404
            ? 'Take the link at the end of the mail, from “http” to its last letter.'
            : sentenceOf(stop.error)}
        </p>
      </Gate>
    )
  return (
    <Gate title="Mail from here">
      {stop.data && (
        <div className="grid gap-3">
          <p className="written" role="status">
            {stop.data.stopped
              ? `No mail goes from here to ${stop.data.address} any more: no invitation, no question, no reminder.`
              : `Mail goes from here to ${stop.data.address} when somebody invites you or asks you something, and what you chose yourself.`}
          </p>
          <Button look="main" disabled={change.isPending} onClick={() => change.mutate(!stop.data.stopped)}>
            {stop.data.stopped ? 'Let mail come again' : 'Stop all mail'}
          </Button>
          {change.isError && <Alert>{sentenceOf(change.error)}</Alert>}
        </div>
      )}
    </Gate>
  )
}
