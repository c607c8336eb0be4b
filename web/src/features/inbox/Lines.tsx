import type { ReactNode } from 'react'
import type { Schema } from '../../api/client'
import type { Clash } from '../../model/availabilityQueries'
import { eventKey, titleOf } from '../../model/bricks'
import { dateOf } from '../../model/times'
import { clockText, longDayText, momentText } from '../../reader/dates'
import { TextLink } from '../../ui/TextLink'

/** What happened, in a list under a title. */
export function Lines({ title, children }: { title: string; children: ReactNode }) {
  return (
    <>
      <h2 className="mt-8 mb-2 text-base">{title}</h2>
      <ul className="divide-y divide-cement-200 border-y border-cement-200">{children}</ul>
    </>
  )
}

/** A clash that somebody else's change made. */
export function ClashLine({ clash }: { clash: Clash }) {
  return (
    <li className="flex flex-wrap items-baseline justify-between gap-x-4 py-2">
      <span className="written font-bold">
        “{titleOf(clash.first.title)}” and “{titleOf(clash.second.title)}”, {longDayText(clash.start)},{' '}
        {clockText(clash.start)}: {clash.since?.by} changed one of them.{' '}
        <TextLink to={`/week/${dateOf(clash.start)}?desk=clashes`}>What can be done</TextLink>
      </span>
      <span className="text-[12px] text-cement-600">{momentText(clash.since?.at ?? '')}</span>
    </li>
  )
}

/** What somebody else did that concerns one. */
export function NoticeLine({ notice }: { notice: Schema['InboxNoticeBody'] }) {
  return (
    <li className="flex flex-wrap items-baseline justify-between gap-x-4 py-2">
      <span className={`written ${notice.seen ? 'text-cement-700' : 'font-bold'}`}>
        {notice.sentence}{' '}
        {notice.eventId && (
          <TextLink to={`/week?desk=event~${eventKey(notice.eventId, null)}`}>Look at it</TextLink>
        )}
      </span>
      <span className="text-[12px] text-cement-600">{momentText(notice.at)}</span>
    </li>
  )
}
