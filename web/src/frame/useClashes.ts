import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useRef } from 'react'
import { sinceOwnChange } from '../api/client'
import { wallKeys } from '../api/topics'
import { type Clash, clashesQuery, markFine } from '../model/availabilityQueries'
import { titleOf } from '../model/bricks'
import { addDays } from '../model/times'
import { clockText, longDayText } from '../reader/dates'
import { useReader } from '../reader/person'
import { newSet, useActs } from '../undo/acts'

/** How far ahead is looked for clashes, in days: eight weeks. */
const daysAhead = 55

/** The days in which is looked for clashes, from today on. */
export function useClashDays(): { today: string; last: string } {
  const { person, now } = useReader()
  const today = new Date(now()).toLocaleDateString('sv', { timeZone: person.zone })
  return { today, last: addDays(today, daysAhead) }
}

/** Clashes that a change by somebody else made since one last looked into the inbox. Fetched where that is wanted, else only as far as known. */
export function useUnseenClashes(isWanted: boolean): readonly Clash[] {
  const { today, last } = useClashDays()
  const clashes = useQuery({ ...clashesQuery(today, last), enabled: isWanted })
  return (clashes.data?.clashes ?? []).filter((one) => one.since?.unseen === true)
}

/** What collides in the weeks ahead; a new one that somebody else made is told at once. */
export function useClashes(today: string, isWanted: boolean, onShow: () => void) {
  const queries = useQueryClient()
  const acts = useActs()
  const last = addDays(today, daysAhead)
  const clashes = useQuery({ ...clashesQuery(today, last), enabled: isWanted })
  const known = useRef<ReadonlySet<string> | null>(null)
  const all = clashes.data?.clashes
  useEffect(() => {
    if (!all) return
    const fresh = known.current && all.find((one) => !known.current?.has(one.key))
    known.current = new Set(all.map((one) => one.key))
    if (fresh && sinceOwnChange() > 3_000)
      acts.offer(
        `New clash: “${titleOf(fresh.first.title)}” and “${titleOf(fresh.second.title)}”, ${longDayText(fresh.start)}, ${clockText(fresh.start)}.`,
        'Show',
        onShow,
      )
  }, [all, acts, onShow])
  return {
    all,
    more: clashes.data?.more ?? 0,
    error: clashes.error,
    days: { from: today, to: last },
    fine: async (clash: { key: string }) => {
      const set = newSet()
      try {
        await markFine(clash.key, today, last, set)
        acts.done('Marked as fine, until one of the two changes.', set)
      } catch (bad) {
        acts.failed(bad)
      }
      for (const key of wallKeys) void queries.invalidateQueries({ queryKey: [key] })
    },
  }
}
