import { useQuery } from '@tanstack/react-query'
import { clockText, longDayText } from '../../reader/dates'
import { useReader } from '../../reader/person'
import { Button } from '../../ui/Button'
import { ClockField } from '../../ui/ClockField'
import { DateField } from '../../ui/DateField'
import { useAct } from '../../undo/useAct'
import { AnswerForm } from './AnswerForm'
import { type Answer, answerEvent, answersQuery, askPeople, type Named } from './answerQueries'
import { SuggestForm } from './SuggestForm'

interface AnswersPartProps {
  eventId: string
  /** The date that is meant; null for a single event. */
  only: string | null
  /** Where it is one's own to give: its version, and what happens once people were asked. */
  asking?:
    | {
        version: number
        onAsked: () => void
        /** Takes a time that somebody suggests. */
        onTake: (start: string, end: string) => void
      }
    | undefined
  /** When it is, for those who suggest another time; undefined where it has no hours. */
  time?: { start: string; end: string } | undefined
}

const words: Record<Answer, string> = {
  accepted: 'comes',
  tentative: 'perhaps',
  declined: 'does not come',
  needsAction: 'has not answered',
}

/** Who comes: everybody named, live; one's own answer; and asking those who have not been asked. */
export function AnswersPart({ eventId, only, asking, time }: AnswersPartProps) {
  const { person } = useReader()
  const answers = useQuery(answersQuery(eventId, only))
  const answer = useAct({
    run: (wish: { who: Named; answer: Answer; comment: string; start?: string; end?: string }, set) =>
      answerEvent(
        eventId,
        only,
        {
          answer: wish.answer,
          comment: wish.comment,
          for: wish.who.personId,
          ...(wish.start && wish.end ? { suggestedStart: wish.start, suggestedEnd: wish.end } : {}),
        },
        set,
      ),
    say: (_, wish) =>
      wish.start
        ? `Suggested ${longDayText(wish.start)}, ${clockText(wish.start)}.`
        : `Answered: ${wish.who.name} ${words[wish.answer]}.`,
    freshen: ['wall', 'inbox'],
  })
  const ask = useAct({
    run: (people: readonly string[], set) => askPeople(eventId, [...people], asking?.version ?? 0, set),
    say: (_, { length }) => `Asked ${length === 1 ? 'one person' : `${length} people`}, by inbox and mail.`,
    freshen: ['wall', 'inbox'],
    onDone: () => asking?.onAsked(),
  })
  if (!answers.data || answers.data.people.length === 0) return null
  const { people, mayAnswerFor } = answers.data
  const mine = people.filter((one) => mayAnswerFor.includes(one.personId))
  const unasked = people.filter((one) => !one.asked && !mayAnswerFor.includes(one.personId))
  const coming = people.filter((one) => one.answer === 'accepted').length
  return (
    <section aria-label="Who comes" className="mt-4 grid gap-2 border-t border-cement-200 pt-3">
      <h3 className="text-base">
        Who comes{' '}
        <span className="font-text text-[13px] font-normal">
          {coming} of {people.length}
        </span>
      </h3>
      <ul className="grid gap-1 text-[13px]">
        {people.map((one) => (
          <li
            key={one.personId}
            data-answer={one.answer}
            className="border-l-4 border-cement-300 pl-2 data-[answer=accepted]:border-ok data-[answer=declined]:border-clash"
          >
            <span className="written font-bold">{one.name}</span> {words[one.answer]}
            {one.answer === 'needsAction' && one.asked && ' yet'}
            {one.toEarlierTime && '; had answered before it was moved'}
            {one.comment && <q className="written block">{one.comment}</q>}
            {one.suggestedStart && (
              <span className="block">
                suggests {longDayText(one.suggestedStart)}, {clockText(one.suggestedStart)}{' '}
                {asking && one.suggestedEnd && (
                  <button
                    type="button"
                    className="underline"
                    onClick={() => asking.onTake(one.suggestedStart ?? '', one.suggestedEnd ?? '')}
                  >
                    Take that time
                  </button>
                )}
              </span>
            )}
          </li>
        ))}
      </ul>
      {mine.map((one) => (
        <div key={`${one.personId}/${one.comment}/${one.suggestedStart}`} className="grid gap-2">
          <AnswerForm
            name={one.personId === person.id ? null : one.name}
            answer={one.answer}
            comment={one.comment}
            isBusy={answer.isPending}
            onAnswer={(given, comment) => answer.mutate({ who: one, answer: given, comment })}
          />
          {time && (
            <SuggestForm
              time={time}
              isBusy={answer.isPending}
              fields={({ day, clock, onDay, onClock }) => (
                <>
                  <DateField label="Another day" value={day} onChange={onDay} />
                  <ClockField label="Another time" value={clock} onChange={onClock} />
                </>
              )}
              onSuggest={(start, end) =>
                answer.mutate({ who: one, answer: 'declined', comment: one.comment, start, end })
              }
            />
          )}
        </div>
      ))}
      {asking && unasked.length > 0 && (
        <div>
          <Button disabled={ask.isPending} onClick={() => ask.mutate(unasked.map((one) => one.personId))}>
            Ask {unasked.length === 1 ? unasked[0]?.name : `these ${unasked.length}`} whether they come
          </Button>
        </div>
      )}
    </section>
  )
}
