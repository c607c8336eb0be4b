import type { Schema } from '../api/client'
import { blankBrick, type EventBrick, type Time } from './bricks'
import { addDays, dateOf, daysOf, localAt, minuteOf, minutesBetween, plusMinutes } from './times'

/** A part of a draft that can be meant by itself. */
export type EventField = 'when' | 'repeats' | 'who' | 'where' | 'kind' | 'counts' | 'notes'

/** An event that is being written: as it would lie on the wall, and as it lay there when it was opened. */
export interface EventDraft extends EventBrick {
  /** As it was read; null for one that is not there yet. What differs was changed by who writes. */
  before: EventBrick | null
  /** What is to be changed first: it has the focus when the desk opens. */
  focus?: EventField
}

/** How an event can count for the time of those it takes. */
export const showAsChoices = [
  { value: 'busy', label: 'Busy: it takes the time' },
  { value: 'tentative', label: 'Tentative: not settled' },
  { value: 'free', label: 'Free: it takes no time' },
] as const

/** Something new, at a time, in a calendar; in none yet where that is empty. */
export const newDraft = (calendarId: string, time: Time, attendees: readonly string[] = []): EventDraft => ({
  ...blankBrick(calendarId, crypto.randomUUID(), time),
  attendees: [...attendees],
  mayChange: true,
  mayGiveAway: true,
  before: null,
})

/** An event that is there, to be changed: the date that is meant, by itself. */
export const draftOf = (event: Schema['BrickBodyEvent'] | EventBrick): EventDraft => {
  const before = { ...event, form: 'event', dates: 1, texts: null } as const
  return { ...before, before }
}

/** The same again as an event of its own, that repeats no more. */
export const copyOf = (draft: EventDraft): EventDraft => ({
  ...draft,
  eventId: crypto.randomUUID(),
  only: null,
  version: 0,
  rule: null,
  repeats: null,
  before: null,
})

/** The draft as the wall shows it until it is saved: what a time is on another clock is not known once it is moved. */
export const brickOf = (draft: EventDraft): EventBrick =>
  draft.before && draft.before.time !== draft.time ? { ...draft, zone: null, agreed: null } : draft

/** Whole days made of a stretch of hours, and hours made of whole days (an hour from nine). */
export function withForm(time: Time, allDay: boolean, zone: string): Time {
  if (allDay && time.form !== 'days')
    return { form: 'days', first: dateOf(time.start), last: dateOf(time.end), toBeSet: false }
  if (!allDay && time.form === 'days') return { ...hoursOf(time, zone), end: localAt(time.last, 600) }
  return time
}

/** An hour from nine on the first of some days. */
export const hoursOf = (days: { first: string }, zone: string) =>
  ({ form: 'clock', start: localAt(days.first, 540), end: localAt(days.first, 600), zone }) as const

/** What hours of several days come to: hours of each of them, which is a series, or one stretch through the nights. */
export function ofDays(
  hours: Exclude<Time, { form: 'days' }>,
  days: { first: string; last: string },
  each: boolean,
): { time: Time; rule: string | null } {
  const start = `${days.first}T${hours.start.slice(11)}`
  const ends = (day: string) => `${day}T${hours.end.slice(11)}`
  if (!each) return { time: { ...hours, start, end: ends(days.last) }, rule: null }
  const end = ends(days.first) > start ? ends(days.first) : ends(addDays(days.first, 1))
  const count = minutesBetween(`${days.first}T00:00:00`, `${days.last}T00:00:00`) / 1440 + 1
  return { time: { ...hours, start, end }, rule: `FREQ=DAILY;COUNT=${count}` }
}

/** Another start: the end follows, so that the length stays. */
export function withStart(time: Time, start: string): Time {
  if (time.form === 'days') {
    const days = Math.round(minutesBetween(`${time.first}T00:00:00`, `${time.last}T00:00:00`) / 1440)
    return { ...time, first: start, last: addDays(start, days) }
  }
  return { ...time, start, end: plusMinutes(start, minutesBetween(time.start, time.end)) }
}

export const withEnd = (time: Time, end: string): Time =>
  time.form === 'days' ? { ...time, last: end } : { ...time, end }

/** What is wrong with the time, before it is sent; the server checks it again. */
export function timeProblem(time: Time): string | undefined {
  if (time.form === 'days') return time.last < time.first ? 'The last day is before the first.' : undefined
  return time.end < time.start ? 'It would end before it starts.' : undefined
}

/** The fields that differ between two versions of an event, as words. */
export function differences(
  mine: EventDraft,
  theirs: EventDraft,
): { field: string; mine: string; theirs: string }[] {
  const fields: [string, string, string][] = [
    ['When', timeWords(mine.time), timeWords(theirs.time)],
    ['Title', mine.title, theirs.title],
    ['Place', mine.place, theirs.place],
    ['Who', String(mine.attendees.length), String(theirs.attendees.length)],
    ['Kind', mine.kind ?? '', theirs.kind ?? ''],
    ['Counts as', mine.showAs, theirs.showAs],
    ['Notes', mine.notes ?? '', theirs.notes ?? ''],
  ]
  return fields.filter(([, a, b]) => a !== b).map(([field, a, b]) => ({ field, mine: a, theirs: b }))
}

const timeWords = (time: Time): string =>
  time.form === 'days'
    ? `${time.first} to ${time.last}`
    : `${dateOf(time.start)} ${hourWords(time.start)} – ${dateOf(time.end) === dateOf(time.start) ? '' : `${dateOf(time.end)} `}${hourWords(time.end)}`

const hourWords = (local: string): string =>
  `${String(Math.floor(minuteOf(local) / 60)).padStart(2, '0')}:${String(minuteOf(local) % 60).padStart(2, '0')}`

/** How much of one day an absence takes. */
export type DayPart = 'whole' | 'morning' | 'afternoon'

/** The hours of the halves of somebody's day, in minutes after midnight. */
export type Halves = Record<Exclude<DayPart, 'whole'>, { from: number; to: number }>

/** An absence of one day, or of half of it. */
export function ofDay(day: string, part: DayPart, halves: Halves, zone: string): Time {
  if (part === 'whole') return { form: 'days', first: day, last: day, toBeSet: false }
  const { from, to } = halves[part]
  return { form: 'clock', start: localAt(day, from), end: localAt(day, to), zone }
}

/** Which part of one day a time is; null where it is another time. */
export function partOf(time: Time, halves: Halves, zone: string): DayPart | null {
  const { first, last } = daysOf(time)
  if (first !== last) return null
  const parts: readonly DayPart[] = ['whole', 'morning', 'afternoon']
  return parts.find((part) => isSameTime(ofDay(first, part, halves, zone), time)) ?? null
}

const isSameTime = (a: Time, b: Time): boolean =>
  a.form === 'days'
    ? b.form === 'days' && !b.toBeSet && a.first === b.first && a.last === b.last
    : b.form !== 'days' && a.start === b.start && a.end === b.end
