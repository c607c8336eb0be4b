import { expect, test } from 'vitest'
import { becameText, givenText, lossText } from './stepWords'

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

test('of many who were invited it is said what became of each', () => {
  const of = (...fates: Parameters<typeof becameText>[0][number]['fate'][]) =>
    becameText(fates.map((fate) => ({ fate })))
  expect(of('invited')).toBe('One invitation sent.')
  expect(of('invited', 'invited', 'again', 'hasStep')).toBe('2 invitations sent. 1 has access already.')
  expect(of('invitedAlready', 'invitedAlready')).toBe('0 invitations sent. 2 were invited already.')
})
