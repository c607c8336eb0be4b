import { useQuery } from '@tanstack/react-query'
import { sentenceOf } from '../../api/problem'
import { calendarHistoryQuery, personHistoryQuery } from '../../model/accessQueries'
import { momentText } from '../../reader/dates'
import { Note } from '../../ui/Note'

interface HistoryPartProps {
  /** Of a calendar, or of a person on the calendars of a group. */
  of: { calendarId: string } | { groupId: string; personId: string }
}

/** Who gave what to whom and when, the latest first. */
export function HistoryPart({ of }: HistoryPartProps) {
  const ofCalendar = 'calendarId' in of
  const history = useQuery(
    ofCalendar ? calendarHistoryQuery(of.calendarId) : personHistoryQuery(of.groupId, of.personId),
  )
  if (history.isError) return <p className="text-clash">{sentenceOf(history.error)}</p>
  if (!history.data) return null
  if (history.data.length === 0) return <p className="text-cement-700">Nothing was given or taken so far.</p>
  return (
    <ol className="divide-y divide-cement-200 border-y border-cement-200">
      {history.data.map((entry) => (
        <li key={entry.sequence} className="py-1.5">
          <p className="written">
            <span className="font-bold">{entry.actor}</span> {entry.sentence}
            {!ofCalendar && entry.calendarName && ` on “${entry.calendarName}”`}
          </p>
          <Note>{momentText(entry.at)}</Note>
        </li>
      ))}
    </ol>
  )
}
