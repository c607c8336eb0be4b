import { describe, expect, it } from 'vitest'
import { daysText, dayText, lengthText, periodText } from './dates'

describe('periods', () => {
  it.each([
    ['2026-03-09', '2026-03-15', '9 – 15 March 2026'],
    ['2026-03-30', '2026-04-05', '30 March – 5 April 2026'],
    ['2026-12-28', '2027-01-03', '28 December 2026 – 3 January 2027'],
    ['2026-03-11', '2026-03-11', 'Wed 11 March 2026'],
  ])('%s to %s is “%s”', (first, last, text) => expect(periodText(first, last)).toBe(text))
})

it('a day is short on the wall', () => expect(dayText('2026-03-11')).toBe('Wed 11'))

it.each([
  [15, '15 min'],
  [120, '2 h'],
  [150, '2 h 30'],
])('%i minutes are “%s”', (minutes, text) => expect(lengthText(minutes)).toBe(text))

it('whole days say when they are over', () => {
  expect(daysText('2026-03-16', '2026-03-20')).toBe('Mon 16 March to Fri 20 March, over on Sat 21')
  expect(daysText('2026-03-16', '2026-03-16')).toBe('Mon 16 March, all day')
})
