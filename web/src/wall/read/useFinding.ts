import { useQuery } from '@tanstack/react-query'
import { useMemo, useState } from 'react'
import { addDays } from '../../model/times'
import type { WallPlace } from './useWallPlace'
import { findQuery, type Search } from './wallQuery'

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
  const isSeeking =
    desk?.kind === 'find' && (search.words.trim() !== '' || search.person !== '' || search.kind !== '')
  const hits = useQuery({ ...findQuery(search), enabled: isSeeking })
  const found = useMemo(
    () => (isSeeking && hits.data ? new Set(hits.data.hits.map((hit) => hit.eventId)) : null),
    [isSeeking, hits.data],
  )
  return { search, setSearch, found }
}
