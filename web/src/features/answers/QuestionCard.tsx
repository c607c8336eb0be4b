import type { Schema } from '../../api/client'
import { titleOf } from '../../model/bricks'
import { whenText } from '../../model/whenText'
import { Card } from '../../ui/Card'
import { useAct } from '../../undo/useAct'
import { AnswerForm } from './AnswerForm'
import { type Answer, answerEvent } from './answerQueries'

/** Whether one comes, in the inbox: answered there, for oneself or a member one answers for. */
export function QuestionCard({ question }: { question: Schema['InboxQuestionBody'] }) {
  const { event, name, whose } = question
  const answer = useAct({
    // A series is answered as a whole; single dates are on the event's own page.
    run: (wish: { answer: Answer; comment: string }, set) =>
      answerEvent(event.eventId, null, { ...wish, for: whose }, set),
    say: () => `Answered to “${titleOf(event.title)}”.`,
    freshen: ['wall', 'inbox'],
  })
  return (
    <Card>
      <h2 className="written text-lg">{titleOf(event.title)}</h2>
      <p>
        {whenText(event.time)}
        {event.repeats && <span className="block text-[13px]">{event.repeats}</span>}
        {event.place && <span className="written block">{event.place}</span>}
      </p>
      {event.notes && <p className="written whitespace-pre-line text-[13px]">{event.notes}</p>}
      <AnswerForm
        name={name}
        answer="needsAction"
        comment=""
        isBusy={answer.isPending}
        onAnswer={(given, comment) => answer.mutate({ answer: given, comment })}
      />
    </Card>
  )
}
