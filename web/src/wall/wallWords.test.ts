import { expect, it } from 'vitest'
import type { EventBrick } from '../model/bricks'
import { elsewhereText, whatChanged } from './wallWords'

it.each([
  ['America/Halifax', '2026-03-11T11:00:00', 'Halifax, 3 h earlier'], // its clocks have changed, London's not yet
  ['America/Halifax', '2026-04-11T11:00:00', 'Halifax, 4 h earlier'],
  ['Asia/Kathmandu', '2026-03-11T11:00:00', 'Kathmandu, 5.75 h later'],
  ['Pacific/Kiritimati', '2026-03-11T11:00:00', 'Kiritimati, 14 h later'],
  ['Europe/Lisbon', '2026-03-11T11:00:00', 'Lisbon'],
])('a clock in %s', (zone, now, words) => {
  expect(elsewhereText(zone, 'Europe/London', now)).toBe(words)
})

it('an absence without a title is not called untitled', () => {
  const days = { form: 'days', first: '2026-03-11', last: '2026-03-11', toBeSet: false } as const
  const brick = { title: '', time: days } as EventBrick

  const moved = { ...days, first: '2026-03-12', last: '2026-03-12' }
  expect(whatChanged(brick, moved, undefined, undefined, 'away')).toBe('Moved “Away” to Thu 12')
  expect(whatChanged(brick, moved, undefined, undefined, 'events')).toBe('Moved “untitled” to Thu 12')
})
