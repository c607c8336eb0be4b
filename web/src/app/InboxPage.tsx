import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect } from 'react'
import { useSearchParams } from 'react-router'
import { AbsenceCard } from '../features/absences/AbsenceCard'
import { QuestionCard } from '../features/answers/QuestionCard'
import { GuardianshipCard, MembershipCard } from '../features/groups/ConsentCards'
import { GuestCard } from '../features/groups/GuestCard'
import { AskCard } from '../features/inbox/AskCard'
import { ClashLine, Lines, NoticeLine } from '../features/inbox/Lines'
import { MailNote } from '../features/inbox/MailNote'
import { OpenAskCard } from '../features/inbox/OpenAskCard'
import { InvitationCard } from '../features/invitation/InvitationCard'
import { proposalsQuery } from '../features/proposals/proposalQueries'
import { ToSettleCard } from '../features/proposals/ToSettleCard'
import { WhichCard } from '../features/proposals/WhichCard'
import { useUnseenClashes } from '../frame/useClashes'
import { inboxQuery, seeInbox } from '../model/inboxQuery'
import { Page } from '../ui/Page'
import { TextLink } from '../ui/TextLink'

/** Invitations that wait for an answer, and what others did that concerns one. */
export function InboxPage() {
  const inbox = useQuery(inboxQuery)
  const {
    memberships = [],
    guardianships = [],
    guests = [],
    invitations = [],
    asks = [],
    openAsks = [],
    questions = [],
    absences = [],
    notices = [],
    mails = null,
  } = inbox.data ?? {}
  const { waiting = [], toSettle = [] } = useQuery(proposalsQuery).data ?? {}
  // A mail leads to the request it is about.
  const meant = useSearchParams()[0].get('ask')
  const clashes = useUnseenClashes(true)
  const newest = notices.find((notice) => !notice.seen)?.key
  const isNews = newest !== undefined || clashes.length > 0
  const queries = useQueryClient()
  // Leaving the page is what makes its notices read; while it is open they stay marked as new.
  useEffect(() => {
    if (isNews)
      return () =>
        void seeInbox().then(() => {
          for (const key of ['inbox', 'clashes']) void queries.invalidateQueries({ queryKey: [key] })
        })
  }, [isNews, queries])

  return (
    <Page title="Inbox">
      {inbox.data &&
        [
          memberships,
          guardianships,
          guests,
          invitations,
          asks,
          openAsks,
          questions,
          absences,
          notices,
          waiting,
          toSettle,
          clashes,
        ].every((one) => one.length === 0) && (
          <p className="text-cement-700">
            Nothing waits for you. Invitations and requests arrive here, and what changes for you.{' '}
            <TextLink to="/week">Go to the wall</TextLink>
          </p>
        )}
      {mails && <MailNote mails={mails} />}
      <ul className="grid gap-3">
        {memberships.map((asked) => (
          <MembershipCard key={asked.groupId} asked={asked} />
        ))}
        {guardianships.map((asked) => (
          <GuardianshipCard key={asked.id} asked={asked} />
        ))}
        {guests.map((guest) => (
          <GuestCard key={guest.personId} guest={guest} />
        ))}
        {waiting.map((asked) => (
          <WhichCard key={`${asked.id}/${asked.whose}`} asked={asked} />
        ))}
        {questions.map((question) => (
          <QuestionCard key={`${question.event.eventId}/${question.whose}`} question={question} />
        ))}
        {absences.map((absence) => (
          <AbsenceCard key={absence.event.eventId} absence={absence} />
        ))}
        {asks.map((ask) => (
          <AskCard key={ask.id} ask={ask} isMeant={ask.id === meant} />
        ))}
        {openAsks.map((ask) => (
          <OpenAskCard key={ask.id} ask={ask} isMeant={ask.id === meant} />
        ))}
        {invitations.map((one) => (
          <InvitationCard key={one.id} invitation={one} />
        ))}
      </ul>
      {toSettle.length > 0 && (
        <>
          <h2 className="mt-8 mb-2 text-base">Times to be settled</h2>
          <ul className="grid gap-2">
            {toSettle.map((one) => (
              <ToSettleCard key={one.id} proposal={one} />
            ))}
          </ul>
        </>
      )}
      {clashes.length > 0 && (
        <Lines title="Collides since somebody changed something">
          {clashes.map((clash) => (
            <ClashLine key={clash.key} clash={clash} />
          ))}
        </Lines>
      )}
      {notices.length > 0 && (
        <Lines title="What changed for you">
          {notices.map((notice) => (
            <NoticeLine key={notice.key} notice={notice} />
          ))}
        </Lines>
      )}
    </Page>
  )
}
