import { describe, expect, it } from 'vitest'
import {
  addDays,
  dateNamed,
  daysBetween,
  daysOf,
  isLong,
  isPast,
  localAt,
  moved,
  nextHalfHour,
  snap,
  stretchedTo,
  stretchOfDay,
  wholeDays,
} from './times'

const zone = 'Europe/London'
const clock = (start: string, end: string) => ({ form: 'clock', start, end, zone }) as const

describe('days', () => {
  it('are counted across months and leap years', () => {
    expect(addDays('2024-02-28', 2)).toBe('2024-03-01')
    expect(daysBetween('2026-02-27', '2026-03-02')).toBe(3)
    expect(daysBetween('2026-03-02', '2026-02-27')).toBe(-3)
  })

  it('minute 1440 is the midnight after', () =>
    expect(localAt('2026-03-31', 1440)).toBe('2026-04-01T00:00:00'))
})

describe('a date in an address', () => {
  it.each(['2026-03-11', '2024-02-29'])('%s is taken', (text) => expect(dateNamed(text)).toBe(text))
  it.each([undefined, '', 'soon', '2026-3-1', '2026-02-30', '2026-03-11T10:00', '9999-99-99'])(
    '%s is none',
    (text) => expect(dateNamed(text)).toBeUndefined(),
  )
})

describe('drawing', () => {
  it.each([
    [7, 0],
    [8, 15],
    [52, 45],
    [53, 60],
  ])('minute %i is snapped to %i', (minute, snapped) => expect(snap(minute)).toBe(snapped))

  it('goes upwards as well as downwards', () => {
    expect(stretchOfDay('2026-03-11', 600, 540, zone)).toEqual(
      clock('2026-03-11T09:00:00', '2026-03-11T10:00:00'),
    )
    expect(wholeDays('2026-03-14', '2026-03-12')).toEqual({
      form: 'days',
      first: '2026-03-12',
      last: '2026-03-14',
      toBeSet: false,
    })
  })

  it('makes at least one step', () => {
    expect(stretchOfDay('2026-03-11', 600, 600, zone)).toEqual(
      clock('2026-03-11T10:00:00', '2026-03-11T10:15:00'),
    )
  })
})

describe('moving and lengthening', () => {
  it('moves hours by days and minutes and keeps their length', () => {
    expect(moved(clock('2026-03-11T09:00:00', '2026-03-11T10:30:00'), 1, -30)).toEqual(
      clock('2026-03-12T08:30:00', '2026-03-12T10:00:00'),
    )
  })

  it('moves whole days by days alone', () => {
    expect(moved({ form: 'days', first: '2026-03-11', last: '2026-03-12', toBeSet: false }, -1, 300)).toEqual(
      {
        form: 'days',
        first: '2026-03-10',
        last: '2026-03-11',
        toBeSet: false,
      },
    )
  })

  it('never ends before it starts', () => {
    expect(stretchedTo(clock('2026-03-11T09:00:00', '2026-03-11T10:00:00'), '2026-03-11', 480)).toEqual(
      clock('2026-03-11T09:00:00', '2026-03-11T09:15:00'),
    )
    expect(
      stretchedTo({ form: 'days', first: '2026-03-11', last: '2026-03-12', toBeSet: false }, '2026-03-09', 0),
    ).toEqual({
      form: 'days',
      first: '2026-03-11',
      last: '2026-03-11',
      toBeSet: false,
    })
  })
})

describe('where a time lies', () => {
  it('an end at midnight touches the day before it', () => {
    expect(daysOf(clock('2026-03-11T20:00:00', '2026-03-12T00:00:00'))).toEqual({
      first: '2026-03-11',
      last: '2026-03-11',
    })
  })

  it('a day or longer is long', () => {
    expect(isLong(clock('2026-03-11T12:00:00', '2026-03-12T11:45:00'))).toBe(false)
    expect(isLong(clock('2026-03-11T12:00:00', '2026-03-12T12:00:00'))).toBe(true)
    expect(isLong({ form: 'days', first: '2026-03-11', last: '2026-03-11', toBeSet: false })).toBe(true)
  })

  it('is past once it is over', () => {
    expect(isPast(clock('2026-03-11T09:00:00', '2026-03-11T10:00:00'), '2026-03-11T10:00:00')).toBe(true)
    expect(isPast(clock('2026-03-11T09:00:00', '2026-03-11T10:00:00'), '2026-03-11T09:59:00')).toBe(false)
    expect(
      isPast(
        { form: 'days', first: '2026-03-10', last: '2026-03-11', toBeSet: false },
        '2026-03-11T23:00:00',
      ),
    ).toBe(false)
    expect(
      isPast(
        { form: 'days', first: '2026-03-10', last: '2026-03-10', toBeSet: false },
        '2026-03-11T00:00:00',
      ),
    ).toBe(true)
  })
})

it('the half hour that is next', () => {
  expect([0, 1, 29, 30, 672, 690, 1425].map(nextHalfHour)).toEqual([0, 30, 30, 30, 690, 690, 1440])
})
