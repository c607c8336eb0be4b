import { useQuery } from '@tanstack/react-query'
import { coverQuery } from '../../model/availabilityQueries'
import type { Time } from '../../model/bricks'
import { needText } from '../../model/needText'
import { daysOf } from '../../model/times'
import { dayText } from '../../reader/dates'

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
  const { needs = [], days = [] } = cover.data ?? {}
  const low = days.flatMap((day) =>
    day.needs.flatMap((met, index) => {
      const need = needs[index]
      return met.tooFew > 0 && need ? [{ day: day.day, name: needText(need), ...met }] : []
    }),
  )
  if (low.length === 0) return null
  return (
    <section aria-label="Cover" role="status" className="border-l-4 border-clash pl-2 text-[13px]">
      <p className="font-bold">Too few would be there:</p>
      <ul>
        {low.slice(0, 5).map((one) => (
          <li key={`${one.day} ${one.name}`}>
            {dayText(one.day)}
            {one.name && `, ${one.name}`}: {one.there} of {one.needed}
          </li>
        ))}
        {low.length > 5 && <li>and {low.length - 5} times more</li>}
      </ul>
    </section>
  )
}
