import { describe, expect, test } from 'vitest'
import type { Schema } from '../../api/client'
import { blankBrick } from '../../model/bricks'
import { withChanges } from './withChanges'

const time = { form: 'days', first: '2026-03-10', last: '2026-03-10', toBeSet: false } as const
const brick = (eventId: string, title = eventId) => ({ ...blankBrick('rota', eventId, time), title })
const busy = (calendarId: string, start: string): Schema['WallBody']['bricks'][number] => ({
  form: 'busy',
  calendarId,
  start,
  end: start,
  tentative: false,
})
const clash = (first: string, second: string): Schema['WallClashBody'] => ({
  first,
  firstOnly: null,
  second,
  secondOnly: null,
  people: [],
  places: [],
  hard: true,
})
const wall = (
  bricks: Schema['WallBody']['bricks'],
  clashes: Schema['WallClashBody'][] = [],
): Schema['WallBody'] => ({
  from: '2026-03-09',
  to: '2026-03-15',
  zone: 'Europe/London',
  bricks,
  texts: [],
  clashes,
  moreClashes: 0,
  version: 'then',
})
const nothing = { version: 'now', whole: false, events: [], busy: [], bricks: [], texts: [], clashes: [] }

describe('what changed on a wall', () => {
  test('takes the place of what it was, and leaves the rest as the same objects', () => {
    const before = wall([brick('a'), brick('b'), brick('b', 'second date')])

    const after = withChanges(before, { ...nothing, events: ['b', 'c'], bricks: [brick('c')] })

    expect(after.bricks.map((one) => one.form === 'event' && one.eventId)).toEqual(['a', 'c'])
    expect(after.bricks[0]).toBe(before.bricks[0])
    expect(after.version).toBe('now')
  })

  test('renews the busy times of the calendars it names and of no other', () => {
    const before = wall([
      busy('kiln', '2026-03-10T09:00:00'),
      busy('shop', '2026-03-10T09:00:00'),
      brick('a'),
    ])

    const after = withChanges(before, {
      ...nothing,
      busy: ['kiln'],
      bricks: [busy('kiln', '2026-03-11T09:00:00')],
    })

    expect(after.bricks).toEqual([before.bricks[1], before.bricks[2], busy('kiln', '2026-03-11T09:00:00')])
  })

  test('takes away the clashes of what changed, with whatever it was', () => {
    const before = wall([brick('a'), brick('b')], [clash('a', 'b'), clash('b', 'c'), clash('c', 'd')])

    const after = withChanges(before, { ...nothing, events: ['b'], clashes: [clash('b', 'd')] })

    expect(after.clashes).toEqual([clash('c', 'd'), clash('b', 'd')])
  })

  test('puts its texts on the bricks they belong to', () => {
    const texts = [{ notes: 'Cone six', attendees: ['priya'], editors: [], repeats: null, rule: null }]

    const after = withChanges(wall([]), {
      ...nothing,
      events: ['a'],
      bricks: [{ ...brick('a'), texts: 0 }],
      texts,
    })

    expect(after.bricks[0]).toMatchObject({
      eventId: 'a',
      notes: 'Cone six',
      attendees: ['priya'],
      texts: null,
    })
  })

  test('is only another version where nothing in sight changed', () => {
    const before = wall([brick('a')], [clash('a', 'b')])

    const after = withChanges(before, nothing)

    expect(after).toEqual({ ...before, version: 'now' })
    expect(after.bricks).toBe(before.bricks)
  })
})
