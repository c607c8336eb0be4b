import { expect, test } from 'vitest'
import { givenText, lossText } from './stepWords'

test('what was given is said to count only where nothing higher comes by another way', () => {
  expect(givenText('Priya', 'Rota', 'edit', 'view')).toBe('Priya has the step Edit on “Rota” now.')
  expect(givenText('Priya', 'Rota', 'view', 'view')).toBe('Priya has the step View on “Rota” now.')
  expect(givenText('Priya', 'Rota', 'outline', 'view')).toBe(
    'Priya was given Outline on “Rota”, and keeps View, which comes by another way.',
  )
})

test('a wall loses what nothing else leads to', () => {
  expect(lossText('Priya', 'Rota', 'none')).toBe('“Rota” leaves the wall of Priya at once.')
  expect(lossText('Priya', 'Rota', 'view')).toBe('Priya keeps View on “Rota”, which comes by another way.')
})
