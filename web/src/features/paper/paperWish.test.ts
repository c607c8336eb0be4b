import { expect, it } from 'vitest'
import { readWish, sheetsAddress, writeWish } from './paperWish'

const read = (text: string) => readWish(new URLSearchParams(text), '2026-03-11', 1)

it('begins with what was on the wall', () => {
  expect(read('at=/week/2026-03-19')).toMatchObject({
    what: 'week',
    from: '2026-03-16',
    to: '2026-03-22',
    across: true,
  })
  expect(read('at=/month/2026-02-10')).toMatchObject({
    what: 'month',
    from: '2026-02-01',
    to: '2026-02-28',
    people: false,
  })
  expect(read('at=/day/2026-03-19')).toMatchObject({
    what: 'day',
    from: '2026-03-19',
    across: false,
    notes: true,
  })
  expect(read('at=/inbox')).toMatchObject({ what: 'roster', from: '2026-03-09' })
})

it('says no more than what is other than it begins, and is read back', () => {
  const wish = { ...read('at=/roster/2026-03-11&group=g'), notes: true, without: ['a', 'b'] }
  expect(writeWish(wish).toString()).toBe(
    'what=roster&from=2026-03-09&to=2026-03-15&group=g&without=a+b&notes=true',
  )
  expect(readWish(writeWish(wish), '2027-01-01', 1)).toEqual(wish)
})

it('names the calendars only where some are left out', () => {
  const wish = read('at=/week/2026-03-11&group=g')
  expect(sheetsAddress(wish, ['a', 'b'])).not.toContain('calendars')
  expect(sheetsAddress({ ...wish, without: ['a'] }, ['a', 'b'])).toContain('&calendars=b')
})
