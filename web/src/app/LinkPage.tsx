import { useQuery } from '@tanstack/react-query'
import { Link as Anchor, useParams } from 'react-router'
import { sentenceOf } from '../api/problem'
import { linkQuery, linkWallQuery, ownLinkQuery, ownLinkWallQuery } from '../model/linkQueries'
import { sessionQuery } from '../reader/session'
import { Gate } from '../ui/Gate'
import { LinkReading } from './LinkReading'
import { TakeByLink } from './TakeByLink'

/** A calendar, or one event of it, read by a link: no account is needed. */
export function LinkPage() {
  const { secret = '' } = useParams()
  const link = useQuery(linkQuery(secret))
  const session = useQuery(sessionQuery)
  if (link.isError)
    return (
      <Gate title="This link leads nowhere">
        <p className="mb-4">{sentenceOf(link.error)}</p>
        <p className="text-cement-700">
          It may have ended or been renewed, or been cut short on its way. Ask whoever gave it to you for the
          one that holds now.
        </p>
      </Gate>
    )
  if (!link.data || !session.data) return null
  return (
    <LinkReading
      link={link.data}
      today={session.data.now}
      wallOf={(from, to) => linkWallQuery(secret, from, to)}
      take={link.data.taken ? <TakeByLink secret={secret} link={link.data} me={session.data.person} /> : null}
    />
  )
}

/** The same as a coordinator sees it who wants to know what their link shows. */
export function OwnLinkPage() {
  const { calendarId = '', linkId = '' } = useParams()
  const link = useQuery(ownLinkQuery(calendarId, linkId))
  const session = useQuery(sessionQuery)
  if (link.isError)
    return (
      <Gate title="This link is not there">
        <p>{sentenceOf(link.error)}</p>
      </Gate>
    )
  if (!link.data || !session.data) return null
  return (
    <LinkReading
      link={link.data}
      today={session.data.now}
      wallOf={(from, to) => ownLinkWallQuery(calendarId, linkId, from, to)}
      take={
        <p className="mt-4 border-l-4 border-ink pl-3">
          What somebody sees who opens this link.{' '}
          <Anchor to={`/week?desk=calendar~${calendarId}~access`} className="underline underline-offset-2">
            Back to your wall
          </Anchor>
        </p>
      }
    />
  )
}
