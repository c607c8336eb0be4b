import { addDays, daysFrom } from './times'

/** The five ways to look at the wall. */
export type View = 'roster' | 'week' | 'day' | 'month' | 'agenda'

export const views: readonly { value: View; label: string }[] = [
  { value: 'roster', label: 'Roster' },
  { value: 'week', label: 'Week' },
  { value: 'day', label: 'Day' },
  { value: 'month', label: 'Month' },
  { value: 'agenda', label: 'Agenda' },
]

/** How many days a view can show; the first is what it begins with. */
export const spans: Record<View, readonly number[]> = {
  roster: [7, 14, 28],
  week: [7, 1, 2, 3, 4, 5, 6, 10, 14],
  day: [1],
  month: [0],
  agenda: [14, 7, 28, 84],
}

/** On a phone three days of the roster are in sight, and two weeks are pushed aside under the names. */
const phoneRoster = 14

/** How many days a view shows where so many are wished for. */
export const spanOf = (view: View, wished: number, narrow = false): number =>
  spans[view].includes(wished) ? wished : narrow && view === 'roster' ? phoneRoster : (spans[view][0] ?? 7)

/** The longest range that is shown at once, in days. */
export const longestRange = 366

export const isView = (text: string | undefined): text is View => views.some((view) => view.value === text)

/** The first day of a date's week, whichever day the reader's weeks begin with (1 for Monday). */
export const weekStart = (date: string, firstDay: number): string =>
  addDays(date, -((Temporal.PlainDate.from(date).dayOfWeek - firstDay + 7) % 7))

/** What a view shows around a date, and how far one step goes. */
export interface Period {
  days: readonly string[]
  first: string
  last: string
  /** The date one step earlier (-1) or later (1). */
  step: (by: number) => string
}

export function periodOf(view: View, date: string, span: number, firstDay: number): Period {
  if (view === 'month') {
    const month = Temporal.PlainDate.from(date).with({ day: 1 })
    const first = weekStart(month.toString(), firstDay)
    const end = month.add({ months: 1 }).subtract({ days: 1 }).toString()
    const last = addDays(weekStart(end, firstDay), 6)
    const count = Temporal.PlainDate.from(first).until(last).days + 1
    return {
      days: daysFrom(first, count),
      first,
      last,
      step: (by) => month.add({ months: by }).toString(),
    }
  }
  return rangeOf(span % 7 === 0 ? weekStart(date, firstDay) : date, span)
}

/** Exactly so many days from one on; a step goes as far as it is long. */
export const rangeOf = (first: string, span: number): Period => ({
  days: daysFrom(first, span),
  first,
  last: addDays(first, span - 1),
  step: (by) => addDays(first, by * span),
})
