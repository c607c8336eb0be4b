import { Temporal } from 'temporal-polyfill'
import { isDayFirst, monthsWritten } from './dates'

const english = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec']

const shifts = { d: 'days', w: 'weeks', m: 'months', y: 'years' } as const

/**
 * The date somebody types: "2026-05-14", "14 may", "Thu 14 May 2026", "14/5", "may", "+3w", "-10d", "+2m", "today";
 * month names in English or the reader's language, numbers in the order of their language. Undefined where it names
 * none. A month or a day without a year is the one nearest to today.
 */
export function dateTyped(text: string, today: string): string | undefined {
  const typed = text.trim().toLowerCase().replaceAll(',', ' ')
  const now = Temporal.PlainDate.from(today)
  if (typed === 'today' || typed === 'now') return today
  try {
    const iso = /^(\d{4})-(\d{1,2})-(\d{1,2})$/.exec(typed)
    if (iso) return dateOf(Number(iso[1]), Number(iso[2]), Number(iso[3])).toString()
    const shift = /^([+-]\d{1,4})\s*([dwmy])?$/.exec(typed)
    if (shift)
      return now.add({ [shifts[(shift[2] ?? 'd') as keyof typeof shifts]]: Number(shift[1]) }).toString()
    const numbers = /^(\d{1,2})[./\s](\d{1,2})(?:[./\s]+(\d{4})?)?$/.exec(typed)
    if (numbers) {
      const [first, second] = [Number(numbers[1]), Number(numbers[2])]
      return near(isDayFirst() ? second : first, isDayFirst() ? first : second, numbers[3], now)
    }
    const words = typed.split(/[\s.]+/).filter(Boolean)
    // The last, since a day of the week may look like a month: “mar.” is Tuesday in French.
    const found = words.map(monthNamed).findLastIndex((one) => one > 0)
    const month = monthNamed(words[found] ?? '')
    if (month === 0) return undefined
    // What stands around the month: a day, a year, and perhaps the day of the week, which says nothing new.
    const rest = words.filter((_, index) => index !== found)
    const day = rest.find((one) => /^\d{1,2}$/.test(one))
    const year = rest.find((one) => /^\d{4}$/.test(one))
    const others = rest.filter((one) => one !== day && one !== year)
    if (others.some((one) => /\d/.test(one)) || others.length > 1) return undefined
    return near(month, Number(day ?? 1), year, now)
  } catch (error) {
    if (error instanceof RangeError) return undefined
    throw error
  }
}

const dateOf = (year: number, month: number, day: number) =>
  Temporal.PlainDate.from({ year, month, day }, { overflow: 'reject' })

/** The day of a month in a year, or in the year that brings it nearest to now and has it. */
function near(month: number, day: number, year: string | undefined, now: Temporal.PlainDate) {
  if (year) return dateOf(Number(year), month, day).toString()
  return [now.year - 1, now.year, now.year + 1]
    .map((one) => dateOf(one, month, day))
    .toSorted((a, b) => Math.abs(now.until(a).days) - Math.abs(now.until(b).days))[0]
    ?.toString()
}

/** The number of the month that a word names, in English or the reader's language; 0 where it names none. */
function monthNamed(word: string): number {
  if (word.length < 3 || /\d/.test(word)) return 0
  const own = monthsWritten().findIndex((names) => names.some((name) => name.startsWith(word)))
  return own >= 0 ? own + 1 : english.indexOf(word.slice(0, 3)) + 1
}

/** The time of day somebody types, as "14:30": "14:30", "1430", "14.30", "9", "2 pm", "2:30pm". Undefined where it is none. */
export function clockTyped(text: string): string | undefined {
  const typed = text
    .trim()
    .toLowerCase()
    .replaceAll(/\s|\u202f/g, '')
  const parts = /^(\d{1,2})(?:[:.h]?(\d{2}))?(am|pm|a\.m\.|p\.m\.|h|)$/.exec(typed)
  if (!parts) return undefined
  const half = parts[3]?.[0]
  const [hour, minute] = [Number(parts[1]), Number(parts[2] ?? 0)]
  if (minute > 59) return undefined
  if (half === 'a' || half === 'p') {
    if (hour < 1 || hour > 12) return undefined
    return clockOf((hour % 12) + (half === 'p' ? 12 : 0), minute)
  }
  return hour > 23 ? undefined : clockOf(hour, minute)
}

const clockOf = (hour: number, minute: number) =>
  `${String(hour).padStart(2, '0')}:${String(minute).padStart(2, '0')}`
