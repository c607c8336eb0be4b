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
  ['14th', '2026-03-14'],
  ['the 28th', '2026-02-28'], // nearer than the next
  ['31', '2026-03-31'],
  ['may 14th', '2026-05-14'],
  ['the 14th of May', '2026-05-14'],
  ['14 may 27', '2027-05-14'],
  ['20/3/26', '2026-03-20'],
  ['20.3.27', '2027-03-20'],
  ['fri', '2026-03-13'],
  ['Wednesday', '2026-03-11'], // today
  ['this tue', '2026-03-17'],
  ['next monday', '2026-03-16'],
  ['next fri', '2026-03-20'],
  ['sat 14', '2026-03-14'],
  ['week 20', '2026-05-11'], // weeks by ISO 8601; 2026 begins on a Thursday, so week 1 has 29 December
  ['w1', '2025-12-29'],
  ['2026-W53', '2026-12-28'],
  ['week 53 2025', undefined], // that year has 52
  ['tomorrow', '2026-03-12'],
  ['yesterday', '2026-03-10'],
  ['31 feb', undefined],
  ['0', undefined],
  ['32', undefined],
  ['fri next', undefined],
  ['week 0', undefined],
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

it('days are read by the names of the reader’s language as well', () => {
  writeDatesFor('de-DE', false)
  expect(dateTyped('freitag', '2026-03-11')).toBe('2026-03-13')
  expect(dateTyped('fr', '2026-03-11')).toBe('2026-03-13')
  expect(dateTyped('morgen', '2026-03-11')).toBe('2026-03-12')
  expect(dateTyped('KW 20', '2026-03-11')).toBe('2026-05-11')
  expect(dateTyped('friday', '2026-03-11')).toBe('2026-03-13')
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
