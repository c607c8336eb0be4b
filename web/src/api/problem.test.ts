import { expect, it } from 'vitest'
import { isSaidAt, ProblemError } from './problem'

const unfit = (fields: Record<string, string>) =>
  ProblemError.from({ type: 'unfit', detail: 'Look again.', fields }, 422)

it('an error is said at its fields where each of its problems stands at one', () => {
  expect(isSaidAt(unfit({ name: 'Too long.' }), ['name', 'zone'])).toBe(true)
  expect(isSaidAt(unfit({ name: 'Too long.', sort: 'No such sort.' }), ['name', 'zone'])).toBe(false)
  expect(isSaidAt(unfit({}), ['name'])).toBe(false)
  expect(isSaidAt(new TypeError('Failed to fetch'), ['name'])).toBe(false)
})
