import type { Time } from './bricks'

/** Pure computation on the wall's own clock. Times are local, as the server gave them; zones never come into it. */

export const minutesInDay = 1440

/** Times are set in steps of this many minutes. */
export const step = 15

const msInMinute = 60_000
const msInDay = 86_400_000

/**
 * A local time as a number that can be counted with. Read as if it were UTC, where every day has 24 hours: a wall asks
 * thousands of times while something is carried over it, and this is a hundred times cheaper than a date object.
 */
const countOf = (local: string): number =>
  Date.parse(local.length === 10 ? `${local}T00:00:00Z` : `${local}Z`)

export const addDays = (date: string, days: number): string =>
  new Date(countOf(date) + days * msInDay).toISOString().slice(0, 10)

export const daysBetween = (from: string, to: string): number =>
  Math.round((countOf(to) - countOf(from)) / msInDay)

/** The date a text names, as 2026-03-11; undefined where it names none. */
export function dateNamed(text: string | undefined): string | undefined {
  try {
    return text && /^\d{4}-\d{2}-\d{2}$/.test(text)
      ? Temporal.PlainDate.from(text, { overflow: 'reject' }).toString()
      : undefined
  } catch (error) {
    if (error instanceof RangeError) return undefined
    throw error
  }
}

/** The days of a period, first to last. */
export const daysFrom = (first: string, count: number): string[] =>
  Array.from({ length: count }, (_, index) => addDays(first, index))

export const dateOf = (local: string): string => local.slice(0, 10)

/** Minutes since midnight. */
export const minuteOf = (local: string): number =>
  Number(local.slice(11, 13)) * 60 + Number(local.slice(14, 16))

/** The half hour that is next, in minutes of the day: 11:30 at 11:12 and at 11:30, the midnight after at 23:45. */
export const nextHalfHour = (minute: number): number => Math.ceil(minute / 30) * 30

/** A local date-time; a minute of 1440 is the midnight after. */
export const localAt = (date: string, minute: number): string => plusMinutes(`${date}T00:00:00`, minute)

export const plusMinutes = (local: string, minutes: number): string =>
  new Date(countOf(local) + minutes * msInMinute).toISOString().slice(0, 19)

export const minutesBetween = (from: string, to: string): number =>
  Math.trunc((countOf(to) - countOf(from)) / msInMinute)

export const snap = (minute: number): number => Math.round(minute / step) * step

/** The time moved by days and minutes, as long as before. Whole days move by days alone. */
export function moved(time: Time, days: number, minutes: number): Time {
  if (time.form === 'days')
    return { ...time, first: addDays(time.first, days), last: addDays(time.last, days) }
  const by = days * minutesInDay + minutes
  return { ...time, start: plusMinutes(time.start, by), end: plusMinutes(time.end, by) }
}

/** The time with another end: not before a step after its start, and not before its first day. */
export function stretchedTo(time: Time, day: string, minute: number): Time {
  if (time.form === 'days') return { ...time, last: day < time.first ? time.first : day }
  const least = plusMinutes(time.start, step)
  const end = localAt(day, minute)
  // biome-ignore lint/complexity/useMathMinMax: these are times as text, which sort as they follow
  return { ...time, end: end < least ? least : end }
}

/** The time with another start: not after a step before its end, and not after its last day. */
export function startedAt(time: Time, day: string, minute: number): Time {
  if (time.form === 'days') return { ...time, first: day > time.last ? time.last : day }
  const latest = plusMinutes(time.end, -step)
  const start = localAt(day, minute)
  // biome-ignore lint/complexity/useMathMinMax: these are times as text, which sort as they follow
  return { ...time, start: start > latest ? latest : start }
}

/** Whole days from one day to another, in whichever order they were drawn. */
export const wholeDays = (one: string, other: string): Time =>
  one <= other
    ? { form: 'days', first: one, last: other, toBeSet: false }
    : { form: 'days', first: other, last: one, toBeSet: false }

/** A stretch of one day between two minutes, in whichever order they were drawn; at least one step long. */
export function stretchOfDay(day: string, one: number, other: number, zone: string): Time {
  const [from, to] = one <= other ? [one, other] : [other, one]
  return { form: 'clock', start: localAt(day, from), end: localAt(day, Math.max(to, from + step)), zone }
}

/** Whether it lies in the all-day row: whole days, and what lasts longer than a day. */
export const isLong = (time: Time): boolean =>
  time.form === 'days' ||
  (dateOf(time.start) !== dateOf(time.end) && minutesBetween(time.start, time.end) >= minutesInDay)

/** The first and last day a time touches; an end at midnight touches the day before it. */
export function daysOf(time: Time): { first: string; last: string } {
  if (time.form === 'days') return { first: time.first, last: time.last }
  const end = time.end > time.start && minuteOf(time.end) === 0 ? plusMinutes(time.end, -1) : time.end
  return { first: dateOf(time.start), last: dateOf(end) }
}

/** Whether it is over at a local time. */
export const isPast = (time: Time, now: string): boolean =>
  time.form === 'days' ? time.last < dateOf(now) : time.end <= now
