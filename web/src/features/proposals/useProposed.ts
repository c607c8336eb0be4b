import { useQuery } from '@tanstack/react-query'
import { useMemo } from 'react'
import type { Gap } from '../../model/availabilityQueries'
import { proposalsQuery } from './proposalQueries'

/** The times that are being proposed or were, to be lit on the wall; null where none is on the desk. */
export function useProposed(kept: readonly Gap[] | null, proposalId: string | null): readonly Gap[] | null {
  const all = useQuery({ ...proposalsQuery, enabled: proposalId !== null })
  const one = all.data?.toSettle.find((row) => row.id === proposalId)
  return useMemo(() => {
    if (kept) return kept.map((gap) => ({ ...gap, start: gap.suggested, end: gap.suggestedEnd, missing: [] }))
    if (!one || proposalId === null) return null
    return one.times.map(({ start, end }) => ({
      start,
      end,
      suggested: start,
      suggestedEnd: end,
      inHours: true,
      missing: [],
      any: [],
      named: [],
      elsewhere: [],
    }))
  }, [kept, one, proposalId])
}
