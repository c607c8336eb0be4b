import type { Schema } from '../../api/client'

export type Brick = Schema['BrickBody']
export type EventBrick = Extract<Brick, { kind: 'event' }>
export type Time = Schema['TimeBody']
export type Layer = Schema['ShelfLayerBody']

/** What names a brick on the wall: an event, and which of its occurrences. */
export const brickKey = (brick: Brick): string =>
  brick.kind === 'event'
    ? eventKey(brick.eventId, brick.only)
    : `busy/${brick.calendarId}/${brick.start}/${brick.tentative ? 'tentative' : 'settled'}`

export const eventKey = (eventId: string, only: string | null): string =>
  only ? `${eventId}@${only}` : eventId

/** The event and the occurrence that a key names. */
export function fromEventKey(key: string): { eventId: string; only: string | null } {
  const [eventId = '', only] = key.split('@')
  return { eventId, only: only ?? null }
}

export const titleOf = (title: string): string => (title === '' ? 'untitled' : title)

/** When a brick takes place, whatever its kind. */
export const timeOf = (brick: Brick, zone: string): Time =>
  brick.kind === 'event' ? brick.time : { form: 'clock', start: brick.start, end: brick.end, zone }
