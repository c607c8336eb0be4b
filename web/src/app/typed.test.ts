import { afterEach, expect, it } from 'vitest'
import { fieldDateText, writeDatesFor } from './dates'
import { clockTyped, dateTyped } from './typed'

afterEach(() => writeDatesFor('', false))

it.each([
  ['2026-05-14', '2026-05-14'],
  ['14 may', '2026-05-14'],
  ['14. May', '2026-05-14'],
  ['may 14', '2026-05-14'],
  ['Thu 14 May 2026', '2026-05-14'],
  ['Thu, May 14, 2026', '2026-05-14'],
  ['3 december', '2025-12-03'], // nearer than the next
  ['14 may 2027', '2027-05-14'],
  ['june', '2026-06-01'],
  ['14/5', '2026-05-14'],
  ['14.5.', '2026-05-14'],
  ['14.5.2027', '2027-05-14'],
  ['+3w', '2026-04-01'],
  ['-10d', '2026-03-01'],
  ['+2m', '2026-05-11'],
  ['today', '2026-03-11'],
  ['31 feb', undefined],
  ['2026-13-01', undefined],
  ['14/13', undefined],
  ['14 may at 10', undefined],
  ['14 15 may', undefined],
  ['+3w more', undefined],
  ['nonsense', undefined],
  ['', undefined],
])('a date typed as %j', (typed, date) => {
  expect(dateTyped(typed, '2026-03-11')).toBe(date)
})

it('numbers are read in the order of the reader’s language', () => {
  writeDatesFor('en-US', true)
  expect(dateTyped('5/14', '2026-03-11')).toBe('2026-05-14')
  expect(dateTyped('14/5', '2026-03-11')).toBeUndefined()
})

it.each(['en-GB', 'en-US', 'de-DE', 'fr-FR', 'sv-SE', 'nl-NL'])(
  'in %s every month of a year is read as it is written',
  (language) => {
    writeDatesFor(language, false)
    for (let month = 1; month <= 12; month += 1) {
      const date = `2026-${String(month).padStart(2, '0')}-23`
      expect([fieldDateText(date), dateTyped(fieldDateText(date), '2026-03-11')]).toEqual([
        fieldDateText(date),
        date,
      ])
    }
  },
)

it.each([
  ['14:30', '14:30'],
  ['1430', '14:30'],
  ['14.30', '14:30'],
  ['14h30', '14:30'],
  ['9', '09:00'],
  ['930', '09:30'],
  ['2 pm', '14:00'],
  ['2:30 PM', '14:30'],
  ['2:30\u202fpm', '14:30'],
  ['12 am', '00:00'],
  ['12 pm', '12:00'],
  ['0:05', '00:05'],
  ['24:00', undefined],
  ['13 pm', undefined],
  ['9:75', undefined],
  ['half past nine', undefined],
  ['', undefined],
])('a time typed as %j', (typed, clock) => {
  expect(clockTyped(typed)).toBe(clock)
})
