import type { Schema } from '../api/client'
import type { EventBrick, Time } from './bricks'
import { addDays, dateOf, daysOf, localAt, minuteOf, minutesBetween, plusMinutes } from './times'

/** An event as it stands on the desk, new or being changed. */
/** A part of the form that can be meant by itself. */
export type EventField = 'when' | 'repeats' | 'who' | 'where' | 'kind' | 'counts' | 'notes'

export interface EventForm {
  /** What is to be changed first: it has the focus when the form opens. */
  focus?: EventField
  eventId: string
  /** The occurrence that is meant; null for a single event. */
  only: string | null
  /** The version it is based on; null for one that is not there yet. */
  version: number | null
  calendarId: string
  /** The calendar it is in until it is saved; null for one that is in none yet. */
  calendarBefore: string | null
  title: string
  place: string
  notes: string
  /** Its texts as they were read: what differs from them was typed by who has the form. */
  textsBefore: { title: string; place: string; notes: string }
  showAs: Schema['ShowAs']
  /** Whether it is called off; a change leaves that as it is. */
  cancelled: boolean
  time: Time
  attendees: readonly string[]
  /** Whether only those who may change it see who is named. */
  hidesAttendees: boolean
  /** Whose it is to organize; null where that is not shown, or not decided yet. */
  organizer: string | null
  kind: string
  private: boolean
  /** Minutes before the start. */
  reminder: number | null
  /** How it repeats, in words; null for a single event. */
  repeats: string | null
  /** The rule it repeats by; null for none, or for more than one rule can say. */
  rule: string | null
  /** The rule as it was, by which it is seen whether it was changed. */
  ruleBefore: string | null
  /** Whether it may also be deleted, moved to another calendar and given to others. */
  mayGiveAway: boolean
  /** Those who may change it by themselves. */
  editors: readonly string[]
}

/** How an event can count for the time of those it takes. */
export const showAsChoices = [
  { value: 'busy', label: 'Busy: it takes the time' },
  { value: 'tentative', label: 'Tentative: not settled' },
  { value: 'free', label: 'Free: it takes no time' },
] as const

export const newForm = (calendarId: string, time: Time, attendees: readonly string[] = []): EventForm => ({
  eventId: crypto.randomUUID(),
  only: null,
  version: null,
  calendarId,
  calendarBefore: null,
  title: '',
  place: '',
  notes: '',
  textsBefore: { title: '', place: '', notes: '' },
  showAs: 'busy',
  cancelled: false,
  time,
  attendees,
  hidesAttendees: false,
  organizer: null,
  kind: '',
  private: false,
  reminder: null,
  repeats: null,
  rule: null,
  ruleBefore: null,
  mayGiveAway: true,
  editors: [],
})

export const formOf = (brick: Schema['BrickBodyEvent'] | EventBrick): EventForm => ({
  eventId: brick.eventId,
  only: brick.only,
  version: brick.version,
  calendarId: brick.calendarId,
  calendarBefore: brick.calendarId,
  title: brick.title,
  place: brick.place,
  notes: brick.notes ?? '',
  textsBefore: { title: brick.title, place: brick.place, notes: brick.notes ?? '' },
  showAs: brick.showAs,
  cancelled: brick.cancelled,
  time: brick.time,
  attendees: brick.attendees,
  hidesAttendees: brick.hidesAttendees,
  organizer: brick.organizer,
  kind: brick.kind ?? '',
  private: brick.private,
  reminder: brick.reminder,
  repeats: brick.repeats,
  rule: brick.rule,
  ruleBefore: brick.rule,
  mayGiveAway: brick.mayGiveAway,
  editors: brick.editors,
})

/** The form as a brick, so that the wall draws it while it is written. */
export const brickOf = (form: EventForm): EventBrick => ({
  form: 'event',
  calendarId: form.calendarId,
  eventId: form.eventId,
  dates: 1,
  texts: null,
  version: form.version ?? 0,
  only: form.only,
  time: form.time,
  zone: null,
  agreed: null,
  title: form.title,
  place: form.place,
  notes: form.notes,
  showAs: form.showAs,
  cancelled: form.cancelled,
  attendees: [...form.attendees],
  hidesAttendees: form.hidesAttendees,
  organizer: form.organizer,
  kind: form.kind,
  private: form.private,
  reminder: form.reminder,
  repeats: form.repeats,
  rule: form.rule,
  mayChange: true,
  mayGiveAway: form.mayGiveAway,
  editors: [...form.editors],
})

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
  mine: EventForm,
  theirs: EventForm,
): { field: string; mine: string; theirs: string }[] {
  const fields: [string, string, string][] = [
    ['When', timeWords(mine.time), timeWords(theirs.time)],
    ['Title', mine.title, theirs.title],
    ['Place', mine.place, theirs.place],
    ['Who', String(mine.attendees.length), String(theirs.attendees.length)],
    ['Kind', mine.kind, theirs.kind],
    ['Counts as', mine.showAs, theirs.showAs],
    ['Notes', mine.notes, theirs.notes],
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

const noon = 12 * 60

/** An absence of one day, or of the half of it before or after noon in somebody's usual hours. */
export function ofDay(day: string, part: DayPart, begins: number, ends: number, zone: string): Time {
  if (part === 'whole') return { form: 'days', first: day, last: day, toBeSet: false }
  const [from, to] =
    part === 'morning' ? [Math.min(begins, noon - 60), noon] : [noon, Math.max(ends, noon + 60)]
  return { form: 'clock', start: localAt(day, from), end: localAt(day, to), zone }
}

/** Which part of one day a time is; null where it is another time. */
export function partOf(time: Time, begins: number, ends: number, zone: string): DayPart | null {
  const { first, last } = daysOf(time)
  if (first !== last) return null
  const parts: readonly DayPart[] = ['whole', 'morning', 'afternoon']
  return parts.find((part) => isSameTime(ofDay(first, part, begins, ends, zone), time)) ?? null
}

const isSameTime = (a: Time, b: Time): boolean =>
  a.form === 'days'
    ? b.form === 'days' && !b.toBeSet && a.first === b.first && a.last === b.last
    : b.form !== 'days' && a.start === b.start && a.end === b.end
