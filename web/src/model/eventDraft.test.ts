import { expect, it } from 'vitest'
import {
  differences,
  newDraft,
  ofDay,
  ofDays,
  partOf,
  timeProblem,
  withEnd,
  withForm,
  withStart,
} from './eventDraft'

const zone = 'Europe/London'
const clock = (start: string, end: string) => ({ form: 'clock', start, end, zone }) as const
const hours = clock('2026-03-11T09:00:00', '2026-03-11T10:30:00')

it('another start takes the end along', () => {
  expect(withStart(hours, '2026-03-12T14:00:00')).toEqual(clock('2026-03-12T14:00:00', '2026-03-12T15:30:00'))
  expect(
    withStart({ form: 'days', first: '2026-03-11', last: '2026-03-13', toBeSet: false }, '2026-03-30'),
  ).toEqual({
    form: 'days',
    first: '2026-03-30',
    last: '2026-04-01',
    toBeSet: false,
  })
})

it('hours become the days they touch, and days an hour of their first', () => {
  expect(withForm(clock('2026-03-11T22:00:00', '2026-03-12T02:00:00'), true, zone)).toEqual({
    form: 'days',
    first: '2026-03-11',
    last: '2026-03-12',
    toBeSet: false,
  })
  expect(
    withForm({ form: 'days', first: '2026-03-11', last: '2026-03-11', toBeSet: false }, false, zone),
  ).toEqual(clock('2026-03-11T09:00:00', '2026-03-11T10:00:00'))
  expect(withForm(hours, false, zone)).toBe(hours)
})

it('hours of several days are those of each, or one stretch through the nights', () => {
  const days = { first: '2026-03-14', last: '2026-03-16' }
  const from = clock('2026-03-14T10:00:00', '2026-03-14T16:00:00')
  expect(ofDays(from, days, true)).toEqual({ time: from, rule: 'FREQ=DAILY;COUNT=3' })
  expect(ofDays(from, days, false)).toEqual({
    time: clock('2026-03-14T10:00:00', '2026-03-16T16:00:00'),
    rule: null,
  })
  const night = clock('2026-03-14T22:00:00', '2026-03-15T02:00:00')
  expect(ofDays(night, days, true).time).toEqual(night)
})

it('an end before the start is said', () => {
  expect(timeProblem(withEnd(hours, '2026-03-11T08:00:00'))).toBe('It would end before it starts.')
  expect(timeProblem({ form: 'days', first: '2026-03-11', last: '2026-03-10', toBeSet: false })).toBe(
    'The last day is before the first.',
  )
  expect(timeProblem(hours)).toBeUndefined()
})

it('two versions differ in what is different, in words', () => {
  const mine = { ...newDraft('c', hours), title: 'Mine' }
  const theirs = { ...mine, title: 'Theirs', time: clock('2026-03-12T09:00:00', '2026-03-12T10:30:00') }
  expect(differences(mine, theirs)).toEqual([
    { field: 'When', mine: '2026-03-11 09:00 – 10:30', theirs: '2026-03-12 09:00 – 10:30' },
    { field: 'Title', mine: 'Mine', theirs: 'Theirs' },
  ])
})

it('an absence takes a day or a half of it, parted at noon', () => {
  const halves = { morning: { from: 480, to: 720 }, afternoon: { from: 720, to: 1140 } }
  const of = (part: 'whole' | 'morning' | 'afternoon') => ofDay('2026-03-11', part, halves, zone)
  expect(of('morning')).toEqual(clock('2026-03-11T08:00:00', '2026-03-11T12:00:00'))
  expect(of('afternoon')).toEqual(clock('2026-03-11T12:00:00', '2026-03-11T19:00:00'))
  for (const part of ['whole', 'morning', 'afternoon'] as const)
    expect(partOf(of(part), halves, zone)).toBe(part)
  expect(partOf(hours, halves, zone)).toBeNull()
})
