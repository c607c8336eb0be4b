import type { Schema } from '../../api/client'
import { momentText } from '../../reader/dates'
import { Card } from '../../ui/Card'
import { AnswerButtons } from './AnswerButtons'

/** An invitation to a calendar that waits for an answer. */
export function InvitationCard({ invitation: one }: { invitation: Schema['InboxInvitationBody'] }) {
  return (
    <Card>
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
    </Card>
  )
}
