import { describe, expect, it } from 'vitest'
import type { EventBrick, Time } from '../../model/bricks'
import { daysFrom } from '../../model/times'
import { barsOf, piecesOf } from './geometry'

const days = daysFrom('2026-03-09', 7)
const zone = 'Europe/London'

const brick = (eventId: string, time: Time): EventBrick => ({
  form: 'event',
  calendarId: 'c',
  eventId,
  dates: 1,
  texts: null,
  version: 1,
  only: null,
  time,
  zone: null,
  agreed: null,
  title: eventId,
  place: '',
  notes: '',
  showAs: 'busy',
  cancelled: false,
  attendees: [],
  hidesAttendees: false,
  organizer: null,
  kind: '',
  private: false,
  reminder: null,
  repeats: null,
  rule: null,
  mayChange: true,
  mayGiveAway: true,
  editors: [],
})

const clock = (start: string, end: string): Time => ({
  form: 'clock',
  start: `2026-03-${start}:00`,
  end: `2026-03-${end}:00`,
  zone,
})
const whole = (first: string, last: string): Time => ({
  form: 'days',
  first: `2026-03-${first}`,
  last: `2026-03-${last}`,
  toBeSet: false,
})
const lanes = (...bricks: EventBrick[]) =>
  Object.fromEntries(
    piecesOf(bricks, days, zone).map((piece) => [
      piece.brick.form === 'event' ? piece.brick.eventId : '',
      `${piece.lane}/${piece.lanes}`,
    ]),
  )

describe('bricks of hours', () => {
  it('lie in their day, by minutes', () => {
    const [piece] = piecesOf([brick('a', clock('11T09:30', '11T11:00'))], days, zone)
    expect(piece).toMatchObject({ day: 2, from: 570, to: 660, lane: 0, lanes: 1 })
  })

  it('share a day in lanes only where they overlap', () => {
    const overlapping = [brick('a', clock('11T09:00', '11T11:00')), brick('b', clock('11T10:00', '11T12:00'))]
    expect(lanes(...overlapping, brick('later', clock('11T14:00', '11T15:00')))).toEqual({
      a: '0/2',
      b: '1/2',
      later: '0/1',
    })
  })

  it('do not overlap where they only touch', () => {
    expect(
      lanes(brick('a', clock('11T09:00', '11T10:00')), brick('b', clock('11T10:00', '11T11:00'))),
    ).toEqual({ a: '0/1', b: '0/1' })
  })

  it('take the first lane that is free again', () => {
    expect(
      lanes(
        brick('long', clock('11T09:00', '11T13:00')),
        brick('first', clock('11T09:30', '11T10:00')),
        brick('second', clock('11T10:00', '11T11:00')),
      ),
    ).toEqual({ long: '0/2', first: '1/2', second: '1/2' })
  })

  it('are cut at midnight and say that they go on', () => {
    const pieces = piecesOf([brick('night', clock('11T22:00', '12T02:00'))], days, zone)
    expect(
      pieces.map((piece) => [piece.day, piece.from, piece.to, piece.continuesBefore, piece.continuesAfter]),
    ).toEqual([
      [2, 1320, 1440, false, true],
      [3, 0, 120, true, false],
    ])
  })

  it('that end at midnight do not touch the next day', () => {
    expect(
      piecesOf([brick('evening', clock('11T20:00', '12T00:00'))], days, zone).map((piece) => [
        piece.day,
        piece.to,
      ]),
    ).toEqual([[2, 1440]])
  })

  it('of no length can still be seen and met', () => {
    const [piece] = piecesOf([brick('moment', clock('11T12:00', '11T12:00'))], days, zone)
    expect(piece && piece.to - piece.from).toBe(20)
  })

  it('outside the days are not drawn', () => {
    expect(
      piecesOf(
        [brick('before', clock('08T12:00', '08T13:00')), brick('after', clock('16T12:00', '16T13:00'))],
        days,
        zone,
      ),
    ).toEqual([])
  })
})

describe('bricks of whole days', () => {
  it('are bars from their first to their last day', () => {
    expect(barsOf([brick('a', whole('11', '13'))], days, zone)[0]).toMatchObject({
      first: 2,
      last: 4,
      lane: 0,
      continuesBefore: false,
      continuesAfter: false,
    })
  })

  it('are cut at the edges and say that they go on', () => {
    expect(barsOf([brick('a', whole('01', '30'))], days, zone)[0]).toMatchObject({
      first: 0,
      last: 6,
      continuesBefore: true,
      continuesAfter: true,
    })
  })

  it('take the first lane that is free for all of their days', () => {
    const bars = barsOf(
      [
        brick('long', whole('09', '11')),
        brick('other', whole('10', '12')),
        brick('after', whole('12', '13')),
      ],
      days,
      zone,
    )
    expect(bars.map((bar) => [bar.key, bar.lane])).toEqual([
      ['long', 0],
      ['other', 1],
      ['after', 0],
    ])
  })

  it('include what lasts a day or longer by the clock', () => {
    const long = brick('a', clock('11T12:00', '13T12:00'))
    expect(barsOf([long], days, zone)).toHaveLength(1)
    expect(piecesOf([long], days, zone)).toHaveLength(0)
  })
})
