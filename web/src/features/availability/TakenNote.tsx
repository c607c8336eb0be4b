import { useQuery } from '@tanstack/react-query'
import { Fragment } from 'react'
import { freeQuery } from '../../model/availabilityQueries'
import type { Time } from '../../model/bricks'
import { dateOf } from '../../model/times'
import { clockText, longDayText } from '../../reader/dates'

interface TakenNoteProps {
  people: readonly string[]
  places: readonly { calendarId: string; oneAtATime: boolean }[]
  time: Time
  groupId: string | null
  /** The event itself, which is not in its own way. */
  eventId: string | null
  /** Another start that works. */
  onStart: (start: string) => void
}

/** Under "when": who of those named, and which place, is taken then, by what, and the nearest times that work. */
export function TakenNote({ people, places, time, groupId, eventId, onStart }: TakenNoteProps) {
  const isAsked = people.length + places.length > 0
  const answer = useQuery({
    ...freeQuery(
      people,
      places.map((place) => place.calendarId),
      time,
      groupId,
      eventId,
    ),
    enabled: isAsked && !(time.form !== 'days' && time.end < time.start),
  })
  if (!isAsked || !answer.data) return null
  const taken = answer.data.people.filter(
    (one) => one.presence !== 'free' && (one.presence !== 'outsideHours' || time.form !== 'days'),
  )
  const isOnly = (id: string) => places.some((place) => place.calendarId === id && place.oneAtATime)
  const start = time.form === 'days' ? time.first : dateOf(time.start)
  const at = (local: string) => (
    <button type="button" onClick={() => onStart(local)} className="underline">
      {dateOf(local) === start ? clockText(local) : `${longDayText(local)}, ${clockText(local)}`}
    </button>
  )
  const either = (locals: readonly (string | null)[]) =>
    locals
      .filter((local) => local !== null)
      .map((local, index) => (
        <Fragment key={local}>
          {index > 0 && ' or '}
          {at(local)}
        </Fragment>
      ))
  const works = [answer.data.earlier, answer.data.later].filter((local) => local !== null)
  return (
    <section
      aria-label="Who is taken then"
      className="grid gap-1 border-l-4 border-cement-300 pl-2 text-[13px]"
    >
      {taken.length === 0 ? (
        <p role="status">
          {answer.data.people.length === 1
            ? `${answer.data.people[0]?.name} is free then.`
            : 'All of them are free then.'}
        </p>
      ) : (
        <div role="status">
          <ul className="grid gap-1">
            {taken.map((one) => (
              <li key={one.id}>
                <span className="written">
                  <strong>{one.name}</strong> {words[one.presence] ?? 'is taken'}
                  {one.by.length > 0 &&
                    `: ${one.by.map((title) => (title === '' ? 'something not told' : title)).join(', ')}`}
                  {isOnly(one.id) && '. It takes one booking at a time, so this cannot be saved'}
                </span>
                {time.form !== 'days' && (one.earlier || one.later) && (
                  <span className="block text-[12px]">free at {either([one.earlier, one.later])}</span>
                )}
              </li>
            ))}
          </ul>
        </div>
      )}
      {time.form !== 'days' && taken.length > 1 && works.length > 0 && (
        <p className="text-[12px]">all free at {either(works)}</p>
      )}
    </section>
  )
}

const words: Record<string, string> = {
  outsideHours: 'is outside usual hours then',
  tentative: 'is perhaps taken',
  busy: 'is busy',
  away: 'is away',
}
