import { useEffect, useEffectEvent, useMemo } from 'react'
import { useSearchParams } from 'react-router'
import { readMoment } from '../../features/history/momentPlace'
import { addDays } from '../../model/times'
import type { View } from '../../model/views'
import { type DeskPlace, deskText, readDesk } from '../desk/deskPlace'
import { keepLastSpan, keepLastView, lastSpan } from './lastView'
import { placeNow, usePeriod } from './usePeriod'
import { useSteps } from './useSteps'

export type WallPlace = ReturnType<typeof useWallPlace>

/** Where on the wall one is, all of it in its address: the view and its days, through whose eyes, whom it shows, what lies on the desk. */
export function useWallPlace(view: View, today: string, narrow: boolean) {
  const navigate = useSteps()
  const [search, setSearch] = useSearchParams()
  const { date, span, exact, period, beside, firstDay } = usePeriod(view, today, narrow)
  const as = search.get('as')
  const named = search.get('moment')
  const moment = useMemo(() => (as === null ? readMoment(named) : null), [as, named])
  const who = useMemo(() => search.get('who')?.split(' ').filter(Boolean) ?? [], [search])
  useEffect(() => keepLastView(view), [view])

  const setSpan = (days: number, how: { replace?: boolean } = {}) => {
    keepLastSpan(view, days)
    setSearch((before) => {
      const after = new URLSearchParams(before)
      after.set('days', String(days))
      after.delete('to')
      return after
    }, how)
  }
  // Whoever is sent the address sees as much as who sends it, whatever their device showed last.
  const isSpanKept = search.get('days') === null && exact === 0 && lastSpan(view) > 0
  const nameSpan = useEffectEvent(() => setSpan(span, { replace: true }))
  useEffect(() => {
    if (isSpanKept) nameSpan()
  }, [isSpanKept])

  const now = () => placeNow(view, today, narrow, firstDay)

  const goTo = (day: string, to?: View) => {
    const { search: after, view: from, exact: days } = now()
    if (days > 0 && (to ?? from) === from) after.set('to', addDays(day, days - 1))
    else after.delete('to')
    navigate({ pathname: `/${to ?? from}/${day}`, search: after.toString() })
  }
  /** Another day of what is in view: no step of its own. */
  const turnTo = (day: string) => {
    const { search: after, view: here } = now()
    navigate({ pathname: `/${here}/${day}`, search: after.toString() }, { replace: true })
  }
  const firstHere = period.days.includes(today) ? today : view === 'month' ? date : period.first

  return {
    view,
    narrow,
    today,
    date,
    span,
    exact,
    period,
    beside,
    firstDay,
    who,
    /** Through whose eyes a coordinator looks at their calendars; nothing can be changed then. */
    as,
    /** The calendar and the moment to which bringing it back is looked at; nothing is taken in hand then either. */
    moment,
    /** The group the address names. */
    named: search.get('group'),
    desk: readDesk(search.get('desk')),
    deskNow: () => readDesk(now().search.get('desk')),
    /** The day on which something new is made without more being said. */
    firstHere,
    setSpan,
    goTo,
    turnTo,
    /** So many periods later, or earlier below 0. */
    step: (by: number) => goTo(now().period.step(by)),
    /** Goes to a day unless it is in view. */
    showDay: (day: string) => {
      if (!now().period.days.includes(day)) goTo(day)
    },
    showView: (to: View) => {
      const { search: after, date: day } = now()
      after.delete('days')
      after.delete('to')
      navigate({ pathname: `/${to}/${day}`, search: after.toString() })
    },
    showRange: (from: string, to: string) => {
      const { search: after } = now()
      after.set('to', to)
      navigate({ pathname: `/agenda/${from}`, search: after.toString() })
    },
    /** What is on the wall, on paper. */
    print: (group: string | undefined) =>
      navigate(`/print?at=${window.location.pathname}${group ? `&group=${group}` : ''}`),
    /** Lays something on the desk. It starts from where one is at that moment: a save that ends later must not lead back to where it began. */
    place: (next: DeskPlace | null, extra: Record<string, string | null> = {}) => {
      const after = new URLSearchParams(window.location.search)
      const isOpening = next !== null && !after.has('desk')
      if (next) after.set('desk', deskText(next))
      else after.delete('desk')
      for (const [key, value] of Object.entries(extra))
        if (value === null) after.delete(key)
        else after.set(key, value)
      const to = { pathname: window.location.pathname, search: after.toString() }
      if (isOpening) navigate.open(to)
      else navigate.turn(to, next === null)
    },
  }
}
