import { expect, test } from 'vitest'
import type { BinEntry } from './binQueries'
import { backText, datesText, fits, headOf } from './binWords'

const entry = (change: Partial<BinEntry>): BinEntry => ({
  place: { kind: 'events', calendarId: 'c', act: 'a', id: null },
  calendarName: 'Classes',
  hue: 'lake',
  mark: 'drop',
  groupName: 'Studio team',
  count: 1,
  things: [{ id: 'e', title: 'Throwing', time: null, repeats: false }],
  dates: [],
  from: null,
  deletedBy: 'Ines Varga',
  deletedAt: '2026-03-11T11:12:00Z',
  keptUntil: '2026-04-10T11:12:00Z',
  erased: null,
  ...change,
})

const place = (kind: BinEntry['place']['kind']) => ({ kind, calendarId: 'c', act: 'a', id: null })

test.each([
  ['an event', {}, 'Throwing'],
  ['one without a title', { things: [{ id: 'e', title: '', time: null, repeats: false }] }, 'Untitled'],
  ['several', { count: 12 }, '12 events'],
  ['a calendar', { place: place('calendar') }, 'Classes'],
  ['dates', { place: place('dates'), dates: [{ start: '2026-03-19T14:00:00' }] }, 'Throwing, Thu 19 March'],
  ['proposed times', { place: place('proposal'), count: 3 }, 'Throwing, 3 proposed times'],
])('the head of %s', (_, change, head) => {
  expect(headOf(entry(change))).toBe(head)
})

test.each([
  [['2026-03-19T14:00:00', '2026-03-26T14:00:00'], null, 'Thu 19 March and Thu 26 March'],
  [[], '2026-03-19T14:00:00', 'from Thu 19 March on'],
  [['2026-03-12T14:00:00'], '2026-03-26T14:00:00', 'Thu 12 March and from Thu 26 March on'],
  [
    ['12', '13', '14', '15', '16', '17'].map((day) => `2026-03-${day}T14:00:00`),
    null,
    'Thu 12 March, Fri 13 March, Sat 14 March, Sun 15 March and 2 more',
  ],
])('the dates %j from %s on', (dates, from, text) => {
  expect(datesText({ dates: dates.map((start) => ({ start })), from })).toBe(text)
})

test.each([
  [{}, 1, '“Throwing” is back in Classes.'],
  [{ count: 12 }, 12, '12 events are back in Classes.'],
  [{ place: place('dates') }, 1, 'The date of “Throwing” is back.'],
  [{ place: place('dates') }, 3, '3 dates of “Throwing” are back.'],
  [{ place: place('proposal') }, 1, 'The times of “Throwing” are proposed again.'],
  [{ place: place('calendar') }, 1, '“Classes” is back, with everybody who had access.'],
])('what is said of %j', (change, returned, text) => {
  expect(backText(entry(change), returned)).toBe(text)
})

test('it is found by its title, its calendar and who deleted it', () => {
  for (const sought of ['', ' THROW', 'classes', 'ines', 'studio']) expect(fits(entry({}), sought)).toBe(true)
  expect(fits(entry({}), 'kiln')).toBe(false)
})
