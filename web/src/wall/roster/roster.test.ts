import { expect, it } from 'vitest'
import { type Brick, blankBrick, type EventBrick, type Layer, type Time } from '../../model/bricks'
import { daysFrom } from '../../model/times'
import { carriedTo, linesOf, type RosterRow, rowsOf, rowsOfBrick } from './roster'

const zone = 'Europe/London'
const days = daysFrom('2026-03-09', 7)

const layer = (calendarId: string, part: Partial<Layer> = {}): Layer => ({
  calendarId,
  groupId: 'g',
  groupName: 'Studio team',
  name: calendarId,
  description: '',
  hue: 'iron',
  mark: 'cone',
  zone,
  purpose: 'events',
  groupDefault: null,
  takes: 'named',
  person: null,
  oneAtATime: false,
  agreed: false,
  kinds: [],
  role: 'edit',
  ways: ['own'],
  stays: 'none',
  may: { add: true, export: true, history: true, coordinate: false },
  shown: true,
  beside: false,
  offShelf: false,
  calendar: { name: calendarId, hue: 'iron', mark: 'cone' },
  web: null,
  version: 1,
  ...part,
})

const clock = (start: string, end: string): Time => ({
  form: 'clock',
  start: `2026-03-${start}:00`,
  end: `2026-03-${end}:00`,
  zone,
})

const brick = (
  eventId: string,
  calendarId: string,
  attendees: string[] = [],
  time = clock('12T14:00', '12T15:30'),
): EventBrick => ({ ...blankBrick(calendarId, eventId, time), attendees, title: eventId })

const layers = new Map(
  [
    layer('rota'),
    layer('kiln', { purpose: 'place' }),
    layer('own', { takes: 'person', person: 'priya' }),
    layer('studio', { takes: 'group' }),
    layer('shop', { beside: true }),
  ].map((one) => [one.calendarId, one]),
)

const rows = rowsOf(
  [
    { personId: 'ines', name: 'Ines', note: '' },
    { personId: 'priya', name: 'Priya', note: '' },
  ],
  [...layers.values()],
)
const keys = new Set(rows.map((row) => row.key))
const row = (key: string): RosterRow => {
  const found = rows.find((one) => one.key === key)
  if (!found) throw new Error(key)
  return found
}

it('has a row for everybody, each member, each place and what is set beside', () => {
  expect(rows.map((one) => one.key)).toEqual([
    'everyone',
    'person/ines',
    'person/priya',
    'layer/kiln',
    'layer/shop',
  ])
})

it.each([
  [brick('a', 'rota', ['ines']), ['person/ines']],
  [brick('b', 'rota', ['ines', 'priya']), ['person/ines', 'person/priya']],
  [brick('c', 'rota'), ['everyone']],
  [brick('d', 'rota', ['somebody who left']), ['everyone']],
  [brick('e', 'kiln', ['priya']), ['person/priya', 'layer/kiln']],
  [brick('f', 'own'), ['person/priya']],
  [brick('g', 'studio', ['ines']), ['person/ines', 'everyone']],
  [brick('h', 'shop'), ['layer/shop']],
] as const)('a brick lies in the rows of those it concerns', (one, expected) => {
  expect(rowsOfBrick(one, layers.get(one.calendarId) ?? layer('?'), keys)).toEqual(expected)
})

it('a busy time without a name lies in the row of the one whose calendar it is', () => {
  const busy: Brick = {
    form: 'busy',
    calendarId: 'own',
    start: '2026-03-12T09:00:00',
    end: '2026-03-12T11:00:00',
    tentative: false,
  }
  expect(rowsOfBrick(busy, layer('own', { takes: 'person', person: 'priya' }), keys)).toEqual([
    'person/priya',
  ])
})

it('days have their bricks in order, and ranges lie across them', () => {
  const lines = linesOf(
    rows,
    [
      brick('late', 'rota', ['ines']),
      brick('early', 'rota', ['ines'], clock('12T09:00', '12T10:00')),
      brick('over midnight', 'rota', ['ines'], clock('13T22:00', '14T02:00')),
      brick('away', 'rota', ['ines'], {
        form: 'days',
        first: '2026-03-09',
        last: '2026-03-11',
        toBeSet: false,
      }),
      brick('one day', 'rota', ['ines'], {
        form: 'days',
        first: '2026-03-12',
        last: '2026-03-12',
        toBeSet: false,
      }),
    ],
    layers,
    days,
    zone,
  )
  const ines = lines.find((line) => line.row.key === 'person/ines')
  const names = (index: number) =>
    ines?.cells[index]?.map((one) => (one.form === 'event' ? one.eventId : 'busy'))
  expect(names(3)).toEqual(['one day', 'early', 'late'])
  expect([names(4), names(5)]).toEqual([['over midnight'], ['over midnight']])
  expect(ines?.bars).toMatchObject([{ key: 'away', first: 0, last: 2, lane: 0 }])
  expect(ines?.lanes).toBe(1)
})

it('carried from one person to another, the one goes and the other comes', () => {
  const shared = brick('x', 'rota', ['ines', 'mei'])
  expect(carriedTo(shared, row('person/ines'), row('person/priya'))).toEqual(['mei', 'priya'])
  expect(carriedTo(shared, row('person/ines'), row('everyone'))).toEqual(['mei'])
  expect(carriedTo(shared, row('everyone'), row('person/priya'))).toEqual(['ines', 'mei', 'priya'])
  expect(carriedTo(shared, row('person/ines'), row('person/ines'))).toEqual(['ines', 'mei'])
  expect(carriedTo(shared, row('person/ines'), row('layer/kiln'))).toEqual(['ines', 'mei'])
})
