import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect } from 'react'
import { Link, useSearchParams } from 'react-router'
import { AbsenceCard } from '../features/absences/AbsenceCard'
import { QuestionCard } from '../features/answers/QuestionCard'
import { GuardianshipCard, MembershipCard } from '../features/groups/ConsentCards'
import { GuestCard } from '../features/groups/GuestCard'
import { AskCard } from '../features/inbox/AskCard'
import { OpenAskCard } from '../features/inbox/OpenAskCard'
import { AnswerButtons } from '../features/invitation/AnswerButtons'
import { proposalsQuery } from '../features/proposals/proposalQueries'
import { ToSettleCard } from '../features/proposals/ToSettleCard'
import { WhichCard } from '../features/proposals/WhichCard'
import { useUnseenClashes } from '../frame/useClashes'
import { eventKey, titleOf } from '../model/bricks'
import { inboxQuery, seeInbox } from '../model/inboxQuery'
import { dateOf } from '../model/times'
import { clockText, longDayText, momentText } from '../reader/dates'
import { Page } from '../ui/Page'

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
  const newest = notices.find((notice) => !notice.seen)?.sequence
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
            <Link to="/week" className="underline underline-offset-2">
              Go to the wall
            </Link>
          </p>
        )}
      {mails && mails.givenUp.length > 0 && (
        <p role="status" className="written mb-3 border-l-4 border-clash bg-surface p-3">
          {mails.givenUp.length === 1 ? 'A mail of yours was' : `${mails.givenUp.length} mails of yours were`}{' '}
          given up, since nobody took {mails.givenUp.length === 1 ? 'it' : 'them'} for days:{' '}
          {mails.givenUp.map((subject) => `“${subject}”`).join(', ')}. Look at the address, or tell them in
          another way.
        </p>
      )}
      {mails?.nextTry && (
        <p role="status" className="mb-3 border-l-4 border-clash bg-surface p-3">
          {mails.count === 1 ? 'A mail of yours waits' : `${mails.count} mails of yours wait`}: the mail
          server does not take {mails.count === 1 ? 'it' : 'them'} now. Nothing is lost; Mortar tries again by
          itself, next on {momentText(mails.nextTry)}.
        </p>
      )}
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
          <li key={one.id} className="grid gap-2 rounded-control border-2 border-ink bg-surface p-4">
            <h2 className="written text-lg">
              {one.from} invites you to “{one.calendarName}”
            </h2>
            <p className="written">{one.sentence}</p>
            {one.message && (
              <blockquote className="written border-l-4 border-cement-300 pl-3 whitespace-pre-line">
                {one.message}
              </blockquote>
            )}
            <div className="flex flex-wrap items-center justify-between gap-2">
              <AnswerButtons
                invitationId={one.id}
                calendarName={one.calendarName}
                from={one.from}
                inReturn={one.inReturn}
                onAnswered={() => undefined}
              />
              <span className="text-[12px] text-cement-600">{momentText(one.sentAt)}</span>
            </div>
          </li>
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
        <>
          <h2 className="mt-8 mb-2 text-base">Collides since somebody changed something</h2>
          <ul className="divide-y divide-cement-200 border-y border-cement-200">
            {clashes.map((clash) => (
              <li key={clash.key} className="flex flex-wrap items-baseline justify-between gap-x-4 py-2">
                <span className="written font-bold">
                  “{titleOf(clash.first.title)}” and “{titleOf(clash.second.title)}”,{' '}
                  {longDayText(clash.start)}, {clockText(clash.start)}: {clash.since?.by} changed one of them.{' '}
                  <Link
                    to={`/week/${dateOf(clash.start)}?desk=clashes`}
                    className="underline underline-offset-2"
                  >
                    What can be done
                  </Link>
                </span>
                <span className="text-[12px] text-cement-600">{momentText(clash.since?.at ?? '')}</span>
              </li>
            ))}
          </ul>
        </>
      )}
      {notices.length > 0 && (
        <>
          <h2 className="mt-8 mb-2 text-base">What changed for you</h2>
          <ul className="divide-y divide-cement-200 border-y border-cement-200">
            {notices.map((notice) => (
              <li
                key={notice.sequence}
                className="flex flex-wrap items-baseline justify-between gap-x-4 py-2"
              >
                <span className={`written ${notice.seen ? 'text-cement-700' : 'font-bold'}`}>
                  {notice.sentence}{' '}
                  {notice.eventId && (
                    <Link
                      to={`/week?desk=event~${eventKey(notice.eventId, null)}`}
                      className="underline underline-offset-2"
                    >
                      Look at it
                    </Link>
                  )}
                </span>
                <span className="text-[12px] text-cement-600">{momentText(notice.at)}</span>
              </li>
            ))}
          </ul>
        </>
      )}
    </Page>
  )
}
