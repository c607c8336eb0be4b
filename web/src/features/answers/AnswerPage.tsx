import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useParams } from 'react-router'
import { sentenceOf } from '../../api/problem'
import { titleOf } from '../../model/bricks'
import { whenText } from '../../model/whenText'
import { clockText, longDayText } from '../../reader/dates'
import { Alert } from '../../ui/Alert'
import { Gate } from '../../ui/Gate'
import { TextField } from '../../ui/TextField'
import { AnswerForm } from './AnswerForm'
import { type Answer, answerByLink, questionByLink } from './answerQueries'
import { SuggestForm } from './SuggestForm'

const said: Partial<Record<Answer, string>> = {
  accepted: 'You come.',
  tentative: 'You perhaps come.',
  declined: 'You do not come.',
}

/** A question that came by mail: answered without an account. */
export function AnswerPage() {
  const { secret = '' } = useParams()
  const queries = useQueryClient()
  const question = useQuery(questionByLink(secret))
  const answer = useMutation({
    mutationFn: (wish: { answer: Answer; comment: string; suggestedStart?: string; suggestedEnd?: string }) =>
      answerByLink(secret, wish),
    onSettled: () => void queries.invalidateQueries({ queryKey: ['answering', secret] }),
  })
  if (question.isError)
    return (
      <Gate title="This link leads nowhere">
        <p className="mb-4">{sentenceOf(question.error)}</p>
        <p className="text-cement-700">
          The event may have been deleted, or a newer mail has another link. Ask the person who sent it.
        </p>
      </Gate>
    )
  const asked = question.data
  return (
    <Gate title={asked ? titleOf(asked.event.title) : 'A question'}>
      {asked && (
        <div className="grid gap-3">
          <p className="written">
            {asked.from} asks whether {asked.name} comes.
          </p>
          <p className="font-bold">
            {whenText(asked.event.time)}
            {asked.event.repeats && <span className="block font-normal">{asked.event.repeats}</span>}
            {asked.event.place && <span className="written block font-normal">{asked.event.place}</span>}
          </p>
          {asked.event.notes && <p className="written whitespace-pre-line">{asked.event.notes}</p>}
          {asked.toEarlierTime && <p role="status">It was moved since you answered. Do you still come?</p>}
          <AnswerForm
            name={null}
            answer={asked.answer}
            comment={asked.comment}
            isBusy={answer.isPending}
            onAnswer={(given, comment) => answer.mutate({ answer: given, comment })}
          />
          {asked.event.time.form === 'clock' && (
            <SuggestForm
              fields={({ day, clock, onDay, onClock }) => (
                <>
                  <TextField label="Another day" type="date" value={day} onChange={onDay} />
                  <TextField label="Another time" type="time" value={clock} onChange={onClock} />
                </>
              )}
              time={asked.event.time}
              isBusy={answer.isPending}
              onSuggest={(suggestedStart, suggestedEnd) =>
                answer.mutate({ answer: 'declined', comment: asked.comment, suggestedStart, suggestedEnd })
              }
            />
          )}
          {said[asked.answer] && (
            <p role="status">
              {said[asked.answer]}
              {asked.suggestedStart &&
                ` You suggest ${longDayText(asked.suggestedStart)}, ${clockText(asked.suggestedStart)}; ${asked.from} is told.`}{' '}
              You can change that here until then.
            </p>
          )}
          {answer.isError && <Alert>{sentenceOf(answer.error)}</Alert>}
        </div>
      )}
    </Gate>
  )
}
