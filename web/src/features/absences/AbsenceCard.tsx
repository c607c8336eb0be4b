import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'
import type { Schema } from '../../api/client'
import { coverQuery } from '../../model/availabilityQueries'
import { groupQueries } from '../../model/groupQueries'
import { needText } from '../../model/needText'
import { daysOf } from '../../model/times'
import { whenAwayText } from '../../model/whenText'
import { dayText } from '../../reader/dates'
import { Card } from '../../ui/Card'
import { AgreeForm } from './AgreeForm'
import { backQuery } from './absenceQueries'

/** The days of an absence that are laid out one by one; of a longer one the rest is counted. */
const mostDays = 10

/** An absence that waits for a coordinator: who else is away on its days, how many would be left, yes or no. */
export function AbsenceCard({ absence }: { absence: Schema['InboxAbsenceBody'] }) {
  const { event, groupId, names, calendarName } = absence
  const who = names.length > 0 ? names.join(' and ') : 'somebody'
  const back = useQuery({
    ...backQuery(groupId, daysOf(event.time).last, event.attendees),
    enabled: event.time.form === 'days',
  })
  return (
    <Card>
      <h2 className="written text-lg">
        {who} would like to be away: {whenAwayText(event.time, back.data?.back)}
      </h2>
      <p className="written text-[13px] text-cement-700">
        {event.title && `“${event.title}” in `}
        {calendarName}
        {event.repeats && `; ${event.repeats}`}
      </p>
      {event.notes && <p className="written whitespace-pre-line text-[13px]">{event.notes}</p>}
      <CoverThen groupId={groupId} event={event} />
      <AgreeForm eventId={event.eventId} version={event.version} who={who} />
      <Link
        to={`/roster/${daysOf(event.time).first}?group=${groupId}`}
        className="justify-self-start underline underline-offset-2"
      >
        See those days on the roster
      </Link>
    </Card>
  )
}

/** Day by day who else is away then, and how many would be left of how many are needed. */
function CoverThen({ groupId, event }: { groupId: string; event: Schema['BrickBodyEvent'] }) {
  const { first, last } = daysOf(event.time)
  const cover = useQuery(
    coverQuery(
      groupId,
      first,
      last,
      event.attendees,
      event.time.form === 'days' ? null : { start: event.time.start, end: event.time.end },
    ),
  )
  const members = useQuery({ ...groupQueries.members(groupId), retry: false })
  if (!cover.data) return null
  const { needs, days } = cover.data
  const nameOf = new Map((members.data ?? []).map((one) => [one.personId, one.name]))
  // A weekend, on which nobody is needed and nobody away, says nothing.
  const telling = days.filter(
    (day) =>
      day.missing.length + day.awayBeforeNoon.length + day.awayAfterNoon.length > 0 ||
      day.needs.some((met) => met.needed > 0),
  )
  return (
    <table aria-label="Cover on these days" className="w-full border-collapse text-[13px]">
      <thead>
        <tr className="text-left text-[12px] text-cement-700">
          <th className="font-normal">Day</th>
          <th className="font-normal">Away as well</th>
          {needs.map((need) => (
            <th key={need.name} className="text-right font-normal">
              {needText(need) || 'There, of needed'}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {telling.slice(0, mostDays).map((day) => (
          <tr key={day.day} className="border-t border-cement-200">
            <th className="py-1 pr-3 text-left font-normal whitespace-nowrap">{dayText(day.day)}</th>
            <td className="written pr-3">
              {[
                ...day.missing
                  .filter((id) => !event.attendees.includes(id))
                  .map((id) => nameOf.get(id) ?? 'somebody'),
                ...day.awayBeforeNoon
                  .filter((id) => !event.attendees.includes(id))
                  .map((id) => `${nameOf.get(id) ?? 'somebody'} until noon`),
                ...day.awayAfterNoon
                  .filter((id) => !event.attendees.includes(id))
                  .map((id) => `${nameOf.get(id) ?? 'somebody'} from noon`),
                ...day.perhaps.map((id) => `perhaps ${nameOf.get(id) ?? 'somebody'}`),
              ].join(', ') || 'nobody'}
            </td>
            {needs.map((need, index) => {
              const met = day.needs[index]
              return (
                <td
                  key={need.name}
                  data-low={(met?.tooFew ?? 0) > 0}
                  className="text-right tabular-nums data-[low=true]:font-bold data-[low=true]:text-clash"
                >
                  {met && met.needed > 0 ? `${met.there} of ${met.needed}` : ''}
                  {met && met.tooFew > 0 && ', too few'}
                </td>
              )
            })}
          </tr>
        ))}
        {telling.length > mostDays && (
          <tr className="border-t border-cement-200">
            <td colSpan={2 + needs.length} className="py-1 text-cement-700">
              and {telling.length - mostDays} days more,{' '}
              {telling.slice(mostDays).filter((day) => day.tooFew > 0).length} of them with too few
            </td>
          </tr>
        )}
      </tbody>
    </table>
  )
}
