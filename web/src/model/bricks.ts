import type { Schema } from '../api/client'

export type Brick = Schema['BrickBody']
export type EventBrick = Extract<Brick, { form: 'event' }>
export type Time = Schema['TimeBody']
export type Layer = Schema['ShelfLayerBody']

/** What names a brick on the wall: an event, and which of its occurrences. */
export const brickKey = (brick: Brick): string =>
  brick.form === 'event'
    ? eventKey(brick.eventId, brick.only)
    : `busy/${brick.calendarId}/${brick.start}/${brick.tentative ? 'tentative' : 'settled'}`

export const eventKey = (eventId: string, only: string | null): string =>
  only ? `${eventId}@${only}` : eventId

/** The event and the occurrence that a key names. */
export function fromEventKey(key: string): { eventId: string; only: string | null } {
  const [eventId = '', only] = key.split('@')
  return { eventId, only: only ?? null }
}

/** What an event is called: an absence without a title says by its calendar what it is. */
export const titleOf = (title: string, purpose?: Layer['purpose']): string =>
  title !== '' ? title : purpose === 'away' ? 'Away' : 'untitled'

/** A brick of which nothing is set but where and when. */
export const blankBrick = (calendarId: string, eventId: string, time: Time): EventBrick => ({
  form: 'event',
  calendarId,
  eventId,
  dates: 1,
  texts: null,
  version: 0,
  only: null,
  time,
  zone: null,
  agreed: null,
  title: '',
  place: '',
  notes: '',
  showAs: 'busy',
  cancelled: false,
  attendees: [],
  hidesAttendees: false,
  organizer: null,
  kind: '',
  private: false,
  reminder: null,
  repeats: null,
  rule: null,
  mayChange: false,
  mayGiveAway: false,
  editors: [],
})

/** The bricks that clash with another, by their keys, hard where both are settled. */
export function clashesOf(clashes: readonly Schema['WallClashBody'][]): ReadonlyMap<string, boolean> {
  const struck = new Map<string, boolean>()
  for (const one of clashes)
    for (const key of [eventKey(one.first, one.firstOnly), eventKey(one.second, one.secondOnly)])
      struck.set(key, struck.get(key) === true || one.hard)
  return struck
}

/** When a brick takes place, whatever its kind. */
export const timeOf = (brick: Brick, zone: string): Time =>
  brick.form === 'event' ? brick.time : { form: 'clock', start: brick.start, end: brick.end, zone }
