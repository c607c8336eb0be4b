import { useQuery } from '@tanstack/react-query'
import { dayText } from '../../app/dates'
import type { Time } from '../wall/bricks'
import { daysOf } from '../wall/times'
import { coverQuery } from './availabilityQueries'

interface CoverNoteProps {
  groupId: string
  time: Time
  /** Who would be away. */
  people: readonly string[]
}

/** Where an absence is entered: the days on which too few would be left. */
export function CoverNote({ groupId, time, people }: CoverNoteProps) {
  const { first, last } = daysOf(time)
  const cover = useQuery({
    ...coverQuery(
      groupId,
      first,
      last,
      people,
      time.form === 'days' ? null : { start: time.start, end: time.end },
    ),
    enabled: last >= first,
  })
  const low = (cover.data ?? []).filter((day) => day.tooFew > 0)
  if (low.length === 0) return null
  return (
    <section aria-label="Cover" role="status" className="border-l-4 border-clash pl-2 text-[13px]">
      <p className="font-bold">Too few would be there:</p>
      <ul>
        {low.slice(0, 5).map((day) => (
          <li key={day.day}>
            {dayText(day.day)}: {day.present.length} of {day.needed}
          </li>
        ))}
        {low.length > 5 && <li>and on {low.length - 5} more days</li>}
      </ul>
    </section>
  )
}
