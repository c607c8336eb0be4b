import { useQuery } from '@tanstack/react-query'
import { useClashDays } from '../../frame/useClashes'
import { clashesQuery } from '../../model/availabilityQueries'
import { shelfQuery } from '../../model/shelfQuery'
import { TextLink } from '../../ui/TextLink'

/** How much of the group's collides in the weeks ahead, and the way there. */
export function ClashCount({ groupId }: { groupId: string }) {
  const { today, last } = useClashDays()
  const shelf = useQuery(shelfQuery)
  const clashes = useQuery(clashesQuery(today, last))
  const here = new Set(
    (shelf.data ?? []).filter((one) => one.groupId === groupId).map((one) => one.calendarId),
  )
  const count = (clashes.data?.clashes ?? []).filter((one) =>
    [one.first, one.second].some((half) => here.has(half.calendarId)),
  ).length
  return clashes.data && shelf.data ? (
    <TextLink to={`/roster?group=${groupId}&desk=clashes`}>
      {count === 0 ? 'No clashes' : count === 1 ? 'One clash' : `${count} clashes`} in the weeks ahead
    </TextLink>
  ) : null
}
