import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useNavigate, useParams } from 'react-router'
import type { Schema } from '../../api/client'
import { sentenceOf } from '../../api/problem'
import { longDayText } from '../../reader/dates'
import { browserZone, sessionQuery, signOut } from '../../reader/session'
import { Button } from '../../ui/Button'
import { Gate } from '../../ui/Gate'
import { TextLink } from '../../ui/TextLink'
import { useActs } from '../../undo/acts'
import { SignInForm } from '../accounts'
import { AccountForm } from './AccountForm'
import { AnswerButtons } from './AnswerButtons'
import { invitationByLink, makeAccountByInvitation } from './invitationQueries'

/** An invitation opened by its mailed link: to answer, or first to sign in or make an account. */
export function InvitationPage() {
  const { token = '' } = useParams()
  const invitation = useQuery(invitationByLink(token))
  if (invitation.isError) {
    return (
      <Gate title="This link leads nowhere">
        <p className="mb-4">{sentenceOf(invitation.error)}</p>
        <p className="text-cement-700">
          The invitation may have been taken back, or the link may have been cut short on its way. Ask the
          person who sent it to send it again.
        </p>
      </Gate>
    )
  }

  return (
    <Gate
      title={
        invitation.data
          ? `${invitation.data.from} invites you to “${invitation.data.calendarName}”`
          : 'Invitation'
      }
    >
      {invitation.data && <Invitation invitation={invitation.data} token={token} />}
    </Gate>
  )
}

function Invitation({ invitation, token }: { invitation: Schema['OpenInvitationBody']; token: string }) {
  const session = useQuery(sessionQuery)
  const navigate = useNavigate()
  if (invitation.closed) {
    return (
      <>
        <p className="mb-4">{invitation.closed}</p>
        <TextLink to="/">Go to Mortar</TextLink>
      </>
    )
  }

  return (
    <>
      <p className="written mb-3">
        {invitation.sentence}
        {invitation.lastDay && ` Until ${longDayText(invitation.lastDay)}.`}
      </p>
      {invitation.message && (
        <blockquote className="written mb-4 border-l-4 border-cement-300 pl-3 whitespace-pre-line">
          {invitation.message}
        </blockquote>
      )}
      {invitation.isMine ? (
        <AnswerButtons
          invitationId={invitation.id}
          calendarName={invitation.calendarName}
          from={invitation.from}
          inReturn={invitation.inReturn}
          onAnswered={() => navigate('/week')}
        />
      ) : session.data?.person ? (
        <OtherAccount address={invitation.address} name={session.data.person.name} />
      ) : invitation.hasAccount ? (
        <>
          <p className="mb-3 text-cement-700">Sign in as {invitation.address} to answer.</p>
          <SignInForm address={invitation.address} />
        </>
      ) : (
        <NewAccount address={invitation.address} token={token} />
      )}
    </>
  )
}

function OtherAccount({ address, name }: { address: string; name: string }) {
  const queries = useQueryClient()
  const acts = useActs()
  const leave = () => signOut().then(() => queries.invalidateQueries(), acts.failed)
  return (
    <>
      <p className="mb-3">
        The invitation is for {address}, and you are signed in as {name}.
      </p>
      <Button onClick={leave}>Sign out and answer as {address}</Button>
    </>
  )
}

function NewAccount({ address, token }: { address: string; token: string }) {
  const queries = useQueryClient()
  return (
    <AccountForm
      address={address}
      make={(account) => makeAccountByInvitation(token, { ...account, zone: browserZone() })}
      onMade={() => queries.invalidateQueries()}
    />
  )
}
