import { useMutation, useQueryClient } from '@tanstack/react-query'
import type { Schema } from '../../api/client'
import { wallKeys } from '../../api/topics'
import { titleOf } from '../../model/bricks'
import { whenText } from '../../model/whenText'
import { newSet, useActs } from '../../undo/acts'
import { AnswerForm } from './AnswerForm'
import { type Answer, answerEvent } from './answerQueries'

/** Whether one comes, in the inbox: answered there, for oneself or a member one answers for. */
export function QuestionCard({ question }: { question: Schema['InboxQuestionBody'] }) {
  const queries = useQueryClient()
  const acts = useActs()
  const { event, name, whose } = question
  const answer = useMutation({
    mutationFn: async (wish: { answer: Answer; comment: string }) => {
      const set = newSet()
      // A series is answered as a whole; single dates are on the event's own page.
      await answerEvent(event.eventId, null, { ...wish, for: whose }, set)
      return set
    },
    onSuccess: (set) => acts.done(`Answered to “${titleOf(event.title)}”.`, set),
    onError: (error) => acts.failed(error),
    onSettled: () => {
      for (const key of [...wallKeys, 'inbox']) void queries.invalidateQueries({ queryKey: [key] })
    },
  })
  return (
    <li className="grid gap-2 rounded-control border-2 border-ink bg-surface p-4">
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
    </li>
  )
}
