import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useNavigate, useParams } from 'react-router'
import { sentenceOf } from '../../api/problem'
import { browserZone, sessionQuery } from '../../reader/session'
import { Button } from '../../ui/Button'
import { Gate } from '../../ui/Gate'
import { SignInForm } from '../accounts'
import { AccountForm } from './AccountForm'
import { joinAsMyself, joiningByLink, joinWithNewAccount } from './invitationQueries'

/** A name in a group, claimed by its mailed link: with the account at hand, another, or a new one. */
export function JoinPage() {
  const { token = '' } = useParams()
  const queries = useQueryClient()
  const navigate = useNavigate()
  const joining = useQuery({ ...joiningByLink(token), retry: false, staleTime: Number.POSITIVE_INFINITY })
  const session = useQuery(sessionQuery)
  const enter = async () => {
    await queries.invalidateQueries({ queryKey: sessionQuery.queryKey })
    navigate('/roster')
  }
  const claim = useMutation({ mutationFn: () => joinAsMyself(token), onSuccess: enter })
  if (joining.isError)
    return (
      <Gate title="This link leads nowhere">
        <p className="mb-4">{sentenceOf(joining.error)}</p>
        <p className="text-cement-700">
          It opens once, and a newer mail replaces it. Ask whoever added you to send it again.
        </p>
      </Gate>
    )
  if (!joining.data) return <Gate title="Welcome">{null}</Gate>
  const { groupName, name, address, hasAccount } = joining.data
  const me = session.data?.person
  return (
    <Gate title={`You are on the list of “${groupName}”`}>
      <p className="written mb-4">
        As {name}, at {address}. Once you are here, what you were put on and given is yours.
      </p>
      {claim.isError && (
        <p role="alert" className="mb-3 text-clash">
          {sentenceOf(claim.error)}
        </p>
      )}
      {me ? (
        <Button look="main" onClick={() => claim.mutate()} disabled={claim.isPending}>
          Join as {me.name}
        </Button>
      ) : hasAccount ? (
        <>
          <p className="mb-3 text-cement-700">Sign in as {address}, or as yourself at another address.</p>
          <SignInForm address={address} />
        </>
      ) : (
        <AccountForm
          address={address}
          name={name}
          make={({ name, password }) => joinWithNewAccount(token, { name, password, zone: browserZone() })}
          onMade={enter}
        />
      )}
    </Gate>
  )
}
