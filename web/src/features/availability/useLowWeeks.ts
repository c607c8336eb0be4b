import { useQuery } from '@tanstack/react-query'
import { useMemo } from 'react'
import { coverQuery } from '../../model/availabilityQueries'
import { addDays, daysBetween } from '../../model/times'

const none: ReadonlyMap<string, number> = new Map()

/** On how many days of each week too few of a group are there, by the first day of the week. */
export function useLowWeeks(
  groupId: string | undefined,
  from: string,
  weeks: number,
): ReadonlyMap<string, number> {
  const cover = useQuery({
    ...coverQuery(groupId ?? '', from, addDays(from, weeks * 7 - 1)),
    enabled: groupId !== undefined,
  })
  return useMemo(() => {
    if (!cover.data) return none
    const low = new Map<string, number>()
    for (const day of cover.data.days) {
      if (day.tooFew === 0) continue
      const week = addDays(from, Math.floor(daysBetween(from, day.day) / 7) * 7)
      low.set(week, (low.get(week) ?? 0) + 1)
    }
    return low
  }, [cover.data, from])
}
