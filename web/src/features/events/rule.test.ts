import { expect, it } from 'vitest'
import { placeInMonth, plainWish, readRule, ruleText, weekdayOf } from './rule'

it.each([
  [{ ...plainWish, every: 2, weekdays: ['TH', 'TU'] }, '2026-03-10', 'FREQ=WEEKLY;INTERVAL=2;BYDAY=TU,TH'],
  [{ ...plainWish, step: 'month', by: 'lastWeekday' }, '2026-03-27', 'FREQ=MONTHLY;BYDAY=-1FR'],
  [{ ...plainWish, step: 'month', by: 'weekday' }, '2026-03-10', 'FREQ=MONTHLY;BYDAY=2TU'],
  [
    { ...plainWish, step: 'month', shortMonths: 'lastDay' },
    '2026-01-31',
    'RSCALE=GREGORIAN;FREQ=MONTHLY;SKIP=BACKWARD',
  ],
  [{ ...plainWish, step: 'month', by: 'lastDay' }, '2026-01-31', 'FREQ=MONTHLY;BYMONTHDAY=-1'],
  [{ ...plainWish, ends: { how: 'until', day: '2026-06-18' } }, '2026-03-12', 'FREQ=WEEKLY;UNTIL=20260618'],
  [{ ...plainWish, step: 'day', ends: { how: 'times', count: 10 } }, '2026-03-12', 'FREQ=DAILY;COUNT=10'],
  [{ ...plainWish, step: 'year' }, '2026-03-12', 'FREQ=YEARLY'],
] as const)('what is chosen is a rule, and the rule is what was chosen', (wish, start, rule) => {
  expect(ruleText(wish, start)).toBe(rule)
  const again = readRule(rule, start)
  expect(again && ruleText(again, start)).toBe(rule)
})

it.each([
  'FREQ=HOURLY',
  'FREQ=MONTHLY;BYDAY=MO,TU;BYSETPOS=-1',
  'FREQ=YEARLY;BYWEEKNO=20',
  'FREQ=MONTHLY;BYDAY=3WE',
])('a rule that says more is left alone: %s', (rule) => {
  expect(readRule(rule, '2026-03-10')).toBeNull()
})

it('an end in UTC is shown as its day', () => {
  expect(readRule('FREQ=WEEKLY;UNTIL=20260618T225959Z', '2026-03-12')?.ends).toEqual({
    how: 'until',
    day: '2026-06-18',
  })
})

it('weekdays and their places in the month', () => {
  expect(weekdayOf('2026-03-11')).toBe('WE')
  expect([placeInMonth('2026-03-01'), placeInMonth('2026-03-08'), placeInMonth('2026-03-31')]).toEqual([
    1, 2, 5,
  ])
})
