import { expect, it } from 'vitest'
import { type Brick, blankBrick } from '../../model/bricks'
import { bricksByDay } from './bricksByDay'

const zone = 'Europe/London'
const days = (eventId: string, first: string, last: string): Brick =>
  blankBrick('classes', eventId, { form: 'days', first, last, toBeSet: false })

it('a range stands on the first of its days in view, and what ended before is not there', () => {
  const byDay = bricksByDay(
    [
      days('last week', '2026-03-03', '2026-03-04'),
      days('into it', '2026-03-07', '2026-03-10'),
      days('in it', '2026-03-11', '2026-03-11'),
    ],
    '2026-03-09',
    zone,
  )
  const shown = [...byDay].map(([day, all]) => [day, all.map((one) => one.form === 'event' && one.eventId)])

  expect(shown).toEqual([
    ['2026-03-09', ['into it']],
    ['2026-03-11', ['in it']],
  ])
})
