import { describe, expect, test } from 'vitest'
import { blankBrick } from '../../model/bricks'
import { keepAlike } from './keepAlike'

const time = { form: 'days', first: '2026-03-10', last: '2026-03-10', toBeSet: false } as const
const brick = (eventId: string, title = eventId) => ({ ...blankBrick('rota', eventId, time), title })
const wall = (...bricks: ReturnType<typeof brick>[]) => ({ bricks, clashes: [] })

describe('a wall that comes anew', () => {
  test('is the old one where it says the same', () => {
    const before = wall(brick('a'), brick('b'))

    const after = keepAlike(before, wall(brick('a'), brick('b'))) as typeof before

    expect(after).toBe(before)
  })

  test('keeps the bricks that stayed, wherever they lie in it now', () => {
    const before = wall(brick('a'), brick('b'), brick('c'))

    const after = keepAlike(before, wall(brick('c'), brick('b', 'moved'), brick('a'))) as typeof before

    expect(after.bricks[0]).toBe(before.bricks[2])
    expect(after.bricks[1]?.title).toBe('moved')
    expect(after.bricks[2]).toBe(before.bricks[0])
  })

  test('has no brick that went', () => {
    const after = keepAlike(wall(brick('a'), brick('b')), wall(brick('b'))) as ReturnType<typeof wall>

    expect(after.bricks.map((one) => one.eventId)).toEqual(['b'])
  })

  test('is taken as it is where there was none', () => {
    const first = wall(brick('a'))

    expect(keepAlike(undefined, first)).toBe(first)
  })
})
