import { useQuery } from '@tanstack/react-query'
import { useMemo, useState } from 'react'
import { addDays } from '../../model/times'
import { useSettled } from '../../ui/useSettled'
import type { WallPlace } from './useWallPlace'
import { findQuery, type Search } from './wallQuery'

/** How long nothing is typed until it is asked for, in milliseconds. */
const pauseMs = 160

/** What is sought on the wall, and which events are found; null where nothing is sought. */
export function useFinding({ desk, today }: WallPlace) {
  const [search, setSearch] = useState<Search>(() => ({
    words: '',
    person: '',
    calendar: '',
    kind: '',
    from: addDays(today, -90),
    to: addDays(today, 270),
  }))
  // Asked for when the typing pauses, and not with each letter.
  const asked = useSettled(search, pauseMs)
  const isSeeking =
    desk?.kind === 'find' && (asked.words.trim() !== '' || asked.person !== '' || asked.kind !== '')
  const hits = useQuery({ ...findQuery(asked), enabled: isSeeking })
  const found = useMemo(
    () => (isSeeking && hits.data ? new Set(hits.data.hits.map((hit) => hit.eventId)) : null),
    [isSeeking, hits.data],
  )
  return { search, asked, setSearch, found }
}
