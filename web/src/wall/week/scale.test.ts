import { expect, it } from 'vitest'
import { scaleOf } from './scale'

it('an open night is as wide as the day', () => {
  const scale = scaleOf(480, 1140, true)
  expect([scale.height, scale.y(60), scale.folded]).toEqual([1200, 50, false])
})

it('a folded night is a strip, and nothing of it is lost', () => {
  const scale = scaleOf(8 * 60, 20 * 60, false)
  expect(scale.folded).toBe(true)
  expect(scale.y(8 * 60)).toBe(72)
  expect(scale.y(20 * 60)).toBe(72 + 600)
  expect(scale.height).toBe(72 + 600 + 36)
  expect(scale.y(3 * 60)).toBeLessThan(scale.y(4 * 60))
})

it.each([0, 61, 480, 481, 700, 1199, 1200, 1300, 1440])(
  'minute %i is found again where it lies',
  (minute) => {
    for (const open of [true, false]) {
      const scale = scaleOf(480, 1200, open)
      expect(scale.minute(scale.y(minute))).toBeCloseTo(minute)
    }
  },
)
