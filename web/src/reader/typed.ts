import {
  betweenWritten,
  dayNamesNear,
  halvesWritten,
  isDayFirst,
  monthsWritten,
  weekdaysWritten,
} from './dates'
import { plainDigits } from './digits'

const english = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec']

const weekdays = ['monday', 'tuesday', 'wednesday', 'thursday', 'friday', 'saturday', 'sunday']

const shifts = { d: 'days', w: 'weeks', m: 'months', y: 'years' } as const

/**
 * The date somebody types: "2026-05-14", "14 may", "Thu 14 May 2026", "14/5", "20/3/26", "may", "14th", "fri", "next
 * monday", "week 20", "+3w", "-10d", "+2m", "tomorrow"; names in English or the reader's language, numbers in the order of
 * their language. Undefined where it names none. A month, a week or a day without a year is the one nearest to today, a
 * day of the week the next one, today among them, and "next" one of the week after this. A week is its Monday (ISO 8601).
 */
export function dateTyped(text: string, today: string): string | undefined {
  const typed = plainDigits(text)
    .trim()
    .toLowerCase()
    .replaceAll(/[,،]/g, ' ')
    .replaceAll(/\b(\d{1,2})(?:st|nd|rd|th)\b/g, '$1')
    .replaceAll(/\b(?:the|of)\s+/g, '')
  const now = Temporal.PlainDate.from(today)
  const days = namedDay(typed)
  if (days !== undefined) return now.add({ days }).toString()
  try {
    return (
      isoOf(typed) ??
      shiftOf(typed, now) ??
      weekOf(typed, now) ??
      numbersOf(typed, now) ??
      weekdayOf(typed, now) ??
      wordsOf(typed, now)
    )
  } catch (error) {
    if (error instanceof RangeError) return undefined
    throw error
  }
}

/** How many days from today a word is that names one; undefined where it names none. */
function namedDay(typed: string): number | undefined {
  const at = [['yesterday'], ['today', 'now'], ['tomorrow']].findIndex(
    (names, index) => names.includes(typed) || dayNamesNear()[index] === typed,
  )
  return at < 0 ? undefined : at - 1
}

function isoOf(typed: string): string | undefined {
  const iso = /^(\d{4})-(\d{1,2})-(\d{1,2})$/.exec(typed)
  return iso ? dateOf(Number(iso[1]), Number(iso[2]), Number(iso[3])).toString() : undefined
}

function shiftOf(typed: string, now: Temporal.PlainDate): string | undefined {
  const shift = /^([+-]\d{1,4})\s*([dwmy])?$/.exec(typed)
  return shift
    ? now.add({ [shifts[(shift[2] ?? 'd') as keyof typeof shifts]]: Number(shift[1]) }).toString()
    : undefined
}

/** "week 20", "w20", "2026-W20": ISO 8601, so that week 1 has the fourth of January. */
function weekOf(typed: string, now: Temporal.PlainDate): string | undefined {
  const week = /^(?:week|wk|w|kw|vecka|uge|uke)\.?\s*(\d{1,2})(?:\s+(\d{4}))?$/.exec(typed)
  const iso = /^(\d{4})-?w(\d{1,2})$/.exec(typed)
  if (!week && !iso) return undefined
  const [number, year] = week ? [Number(week[1]), week[2]] : [Number(iso?.[2]), iso?.[1]]
  return nearest(year ? [Number(year)] : around(now), now, (one) => {
    const fourth = dateOf(one, 1, 4)
    const monday = fourth.subtract({ days: fourth.dayOfWeek - 1 }).add({ weeks: number - 1 })
    return number > 0 && monday.yearOfWeek === one ? monday : undefined
  })
}

/** "14/5", "14.5.", "20/3/26", and "14" alone. */
function numbersOf(typed: string, now: Temporal.PlainDate): string | undefined {
  if (/^\d{1,2}\.?$/.test(typed)) return dayOf(Number.parseInt(typed, 10), now)
  const [word = '', ...rest] = typed.split(' ')
  const plain = weekdayNamed(word.replace('.', '')) > 0 ? rest.join(' ') : typed
  const numbers = /^(\d{1,2})[./\s]+(\d{1,2})(?:[./\s]+(\d{4}|\d{2})?)?$/.exec(plain)
  if (!numbers) return undefined
  const [first, second] = [Number(numbers[1]), Number(numbers[2])]
  return near(isDayFirst() ? second : first, isDayFirst() ? first : second, numbers[3], now)
}

/** "fri", "this friday", "next monday", and "sat 14". */
function weekdayOf(typed: string, now: Temporal.PlainDate): string | undefined {
  const words = typed.split(/[\s.]+/).filter(Boolean)
  const isNext = words[0] === 'next'
  const [name = '', number, ...rest] = isNext || words[0] === 'this' ? words.slice(1) : words
  const weekday = weekdayNamed(name)
  if (weekday === 0 || rest.length > 0 || monthNamed(name) > 0) return undefined
  if (number !== undefined) return /^\d{1,2}$/.test(number) ? dayOf(Number(number), now) : undefined
  return isNext
    ? now.add({ days: 7 - now.dayOfWeek + weekday }).toString()
    : now.add({ days: (weekday - now.dayOfWeek + 7) % 7 }).toString()
}

/** "14 may", "may 14", "Thu 14 May 2026", "june", "14 may 26". */
function wordsOf(typed: string, now: Temporal.PlainDate): string | undefined {
  const between = betweenWritten()
  const words = typed.split(/[\s.]+/).filter((word) => word !== '' && !between.includes(word))
  // The last, since a day of the week may look like a month: “mar.” is Tuesday in French.
  const found = words.map(monthNamed).findLastIndex((one) => one > 0)
  const month = monthNamed(words[found] ?? '')
  if (month === 0) return undefined
  // What stands around the month: a day, a year, and perhaps the day of the week, which says nothing new.
  const rest = words.filter((_, index) => index !== found)
  const day = rest.find((one) => /^\d{1,2}$/.test(one))
  const last = words.at(-1)
  const year =
    rest.find((one) => /^\d{4}$/.test(one)) ??
    (day !== undefined &&
    words.indexOf(day) < found &&
    found === words.length - 2 &&
    /^\d{2}$/.test(last ?? '')
      ? last
      : undefined)
  const others = rest.filter((one) => one !== day && one !== year)
  if (others.some((one) => /\d/.test(one)) || others.length > 1) return undefined
  return near(month, Number(day ?? 1), year, now)
}

const dateOf = (year: number, month: number, day: number) =>
  Temporal.PlainDate.from({ year, month, day }, { overflow: 'reject' })

/** The day of a month in a year, or in the year that brings it nearest to now and has it. */
const near = (month: number, day: number, year: string | undefined, now: Temporal.PlainDate) =>
  year
    ? dateOf(Number(year.length === 2 ? `20${year}` : year), month, day).toString()
    : nearest(around(now), now, (one) => dateOf(one, month, day))

/** The day of that number nearest to now, of this month or one beside it. */
const dayOf = (day: number, now: Temporal.PlainDate) =>
  nearest([-1, 0, 1], now, (months) => {
    const month = now.add({ months })
    return day >= 1 && day <= month.daysInMonth ? month.with({ day }) : undefined
  })

const around = (now: Temporal.PlainDate) => [now.year - 1, now.year, now.year + 1]

const nearest = (
  ones: readonly number[],
  now: Temporal.PlainDate,
  of: (one: number) => Temporal.PlainDate | undefined,
): string | undefined =>
  ones
    .map(of)
    .filter((date) => date !== undefined)
    .toSorted((a, b) => Math.abs(now.until(a).days) - Math.abs(now.until(b).days))[0]
    ?.toString()

/** The day of the week that a word names, from 1 for Monday, in English or the reader's language; 0 where it names none. */
function weekdayNamed(word: string): number {
  if (word.length < 2 || /\d/.test(word)) return 0
  const isIt = (name: string) => name.replace('.', '').startsWith(word)
  const own = weekdaysWritten().findIndex((names) => names.some(isIt))
  return own >= 0 ? own + 1 : word.length < 3 ? 0 : weekdays.findIndex(isIt) + 1
}

/** The number of the month that a word names, in English or the reader's language; 0 where it names none. */
function monthNamed(word: string): number {
  if (/\d/.test(word)) return 0
  const isIt = (name: string) => name === word || (word.length >= 3 && name.startsWith(word))
  const own = monthsWritten().findIndex((names) => names.some(isIt))
  if (word.length < 3) return own + 1
  return own >= 0 ? own + 1 : english.indexOf(word.slice(0, 3)) + 1
}

/** The time of day somebody types, as "14:30": "14:30", "1430", "14.30", "9", "2 pm", "2:30pm". Undefined where it is none. */
export function clockTyped(text: string): string | undefined {
  const typed = withHalf(plainDigits(text).trim().toLowerCase().replaceAll(blanks, ''))
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

const blanks = /[\s\u202f]/g

/** A clock of twelve hours as English has it, where the reader's language names the half of the day, before or after the hour. */
function withHalf(typed: string): string {
  for (const [index, name] of halvesWritten().entries()) {
    const half = name.replaceAll(blanks, '')
    const english = index === 0 ? 'am' : 'pm'
    if (half !== '' && typed.endsWith(half)) return typed.slice(0, -half.length) + english
    if (half !== '' && typed.startsWith(half)) return typed.slice(half.length) + english
  }
  return typed
}

const clockOf = (hour: number, minute: number) =>
  `${String(hour).padStart(2, '0')}:${String(minute).padStart(2, '0')}`
