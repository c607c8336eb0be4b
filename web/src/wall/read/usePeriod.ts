import { useMemo } from 'react'
import { useParams, useSearchParams } from 'react-router'
import { dateNamed, daysBetween } from '../../model/times'
import { longestRange, periodOf, rangeOf, spanOf, type View } from '../../model/views'
import { useReader } from '../../reader/person'
import { isoDay } from '../../reader/preferences'
import { lastSpan } from './lastView'

/** The days that the address names for a view, and how one comes to those beside them. */
export function usePeriod(view: View, today: string, narrow: boolean) {
  const { preferences } = useReader().person
  const date = dateNamed(useParams().date) ?? today
  const [search] = useSearchParams()
  const firstDay = isoDay(preferences.firstDay)
  const span = spanOf(view, Number(search.get('days')) || lastSpan(view))
  const shownSpan = narrow && (view === 'roster' || view === 'week') ? 1 : span
  // An agenda may have any range: its address says where it ends.
  const until = view === 'agenda' ? dateNamed(search.get('to') ?? undefined) : undefined
  const exact = until ? Math.min(longestRange, daysBetween(date, until) + 1) : 0
  const period = useMemo(
    () => (exact > 0 ? rangeOf(date, exact) : periodOf(view, date, shownSpan, firstDay)),
    [view, date, shownSpan, firstDay, exact],
  )
  // Those before and after it, which are fetched before they are asked for.
  const beside = useMemo(
    () =>
      [1, -1].map((by) =>
        exact > 0 ? rangeOf(period.step(by), exact) : periodOf(view, period.step(by), shownSpan, firstDay),
      ),
    [view, period, shownSpan, firstDay, exact],
  )
  return { date, span, exact, period, beside, firstDay }
}
