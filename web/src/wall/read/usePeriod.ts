import { useMemo } from 'react'
import { useParams, useSearchParams } from 'react-router'
import { dateNamed, daysBetween } from '../../model/times'
import { longestRange, type Period, periodOf, rangeOf, spanOf, type View, views } from '../../model/views'
import { useReader } from '../../reader/person'
import { isoDay } from '../../reader/preferences'
import { lastSpan } from './lastView'

/** The days that the address names for a view, and how one comes to those beside them. */
export function usePeriod(view: View, today: string, narrow: boolean) {
  const { preferences } = useReader().person
  const date = dateNamed(useParams().date) ?? today
  const [search] = useSearchParams()
  const firstDay = isoDay(preferences.firstDay)
  const { span, exact } = lengthOf(view, date, search, narrow)
  const period = useMemo(
    () => periodFrom(view, date, { span, exact }, firstDay),
    [view, date, span, exact, firstDay],
  )
  // Those before and after it, which are fetched before they are asked for.
  const beside = useMemo(
    () => [1, -1].map((by) => periodFrom(view, period.step(by), { span, exact }, firstDay)),
    [view, period, span, exact, firstDay],
  )
  return { date, span, exact, period, beside, firstDay }
}

/** How many days an address asks for: `exact` is what it names by their end, `span` what the view has otherwise. */
function lengthOf(view: View, date: string, search: URLSearchParams, narrow: boolean) {
  // An agenda may have any range: its address says where it ends.
  const until = view === 'agenda' ? dateNamed(search.get('to') ?? undefined) : undefined
  return {
    span: spanOf(view, Number(search.get('days')) || lastSpan(view), narrow),
    exact: until ? Math.min(longestRange, daysBetween(date, until) + 1) : 0,
  }
}

function periodFrom(
  view: View,
  date: string,
  { span, exact }: ReturnType<typeof lengthOf>,
  firstDay: number,
): Period {
  if (exact > 0) return rangeOf(date, exact)
  return periodOf(view, date, span, firstDay)
}

/**
 * Where the address leads at this moment. A new place is drawn as soon as the machine comes to it; whoever presses the
 * next key before that means the place they asked for, not the one they still see.
 */
export function placeNow(shown: View, today: string, narrow: boolean, firstDay: number) {
  const search = new URLSearchParams(window.location.search)
  const [, first, second] = window.location.pathname.split('/')
  const view = views.find((one) => one.value === first)?.value ?? shown
  const date = dateNamed(second) ?? today
  const length = lengthOf(view, date, search, narrow)
  return { search, view, date, exact: length.exact, period: periodFrom(view, date, length, firstDay) }
}
