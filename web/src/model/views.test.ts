import { expect, it } from 'vitest'
import { periodOf, weekStart } from './views'

it('a week begins on the day the reader’s weeks begin with', () => {
  expect(weekStart('2026-03-11', 1)).toBe('2026-03-09')
  expect(weekStart('2026-03-11', 7)).toBe('2026-03-08')
  expect(weekStart('2026-03-11', 3)).toBe('2026-03-11')
})

it('periods are whole weeks where their span is, and begin on the date otherwise', () => {
  expect(periodOf('roster', '2026-03-11', 14, 1)).toMatchObject({ first: '2026-03-09', last: '2026-03-22' })
  expect(periodOf('week', '2026-03-11', 3, 1)).toMatchObject({ first: '2026-03-11', last: '2026-03-13' })
  expect(periodOf('week', '2026-03-11', 3, 1).step(-1)).toBe('2026-03-08')
})

it('a month is shown in whole weeks and steps by months', () => {
  const march = periodOf('month', '2026-03-31', 0, 1)
  expect(march).toMatchObject({ first: '2026-02-23', last: '2026-04-05' })
  expect(march.days).toHaveLength(42)
  expect([march.step(-1), march.step(1)]).toEqual(['2026-02-01', '2026-04-01'])
})
