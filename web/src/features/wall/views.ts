import { Temporal } from 'temporal-polyfill'
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
  const whole = span % 7 === 0
  const first = whole ? weekStart(date, firstDay) : date
  return {
    days: daysFrom(first, span),
    first,
    last: addDays(first, span - 1),
    step: (by) => addDays(first, by * span),
  }
}

const months = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec']

/**
 * The date somebody types to go to: "2026-05-14", "14 may", "14 may 2027", "may", "+3w", "-10d", "+2m", "today".
 * Undefined where it names none. A month or a day without a year is the one nearest to today.
 */
export function dateTyped(text: string, today: string): string | undefined {
  const typed = text.trim().toLowerCase()
  const now = Temporal.PlainDate.from(today)
  if (typed === 'today' || typed === 'now') return today
  try {
    if (/^\d{4}-\d{1,2}-\d{1,2}$/.test(typed)) {
      const [year = 0, month = 0, day = 0] = typed.split('-').map(Number)
      return Temporal.PlainDate.from({ year, month, day }, { overflow: 'reject' }).toString()
    }
    const shift = /^([+-]\d{1,4})\s*([dwmy])?/.exec(typed)
    if (shift) {
      const by = Number(shift[1])
      const unit = ({ d: 'days', w: 'weeks', m: 'months', y: 'years' } as const)[shift[2] ?? 'd'] ?? 'days'
      return now.add({ [unit]: by }).toString()
    }
    const words = /^(?:(\d{1,2})\.?\s+)?([a-z]{3,})\.?(?:\s+(\d{4}))?$/.exec(typed)
    const month = words?.[2] ? months.indexOf(words[2].slice(0, 3)) + 1 : 0
    if (!words || month === 0) return undefined
    const day = Number(words[1] ?? 1)
    const of = (year: number) => Temporal.PlainDate.from({ year, month, day }, { overflow: 'reject' })
    if (words[3]) return of(Number(words[3])).toString()
    const near = [now.year - 1, now.year, now.year + 1]
      .map(of)
      .toSorted((a, b) => Math.abs(now.until(a).days) - Math.abs(now.until(b).days))
    return near[0]?.toString()
  } catch (error) {
    if (error instanceof RangeError) return undefined
    throw error
  }
}
