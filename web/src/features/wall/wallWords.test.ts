import { expect, it } from 'vitest'
import { elsewhereText } from './wallWords'

it.each([
  ['America/Halifax', '2026-03-11T11:00:00', 'Halifax, 3 h earlier'], // its clocks have changed, London's not yet
  ['America/Halifax', '2026-04-11T11:00:00', 'Halifax, 4 h earlier'],
  ['Asia/Kathmandu', '2026-03-11T11:00:00', 'Kathmandu, 5.75 h later'],
  ['Pacific/Kiritimati', '2026-03-11T11:00:00', 'Kiritimati, 14 h later'],
  ['Europe/Lisbon', '2026-03-11T11:00:00', 'Lisbon'],
])('a clock in %s', (zone, now, words) => {
  expect(elsewhereText(zone, 'Europe/London', now)).toBe(words)
})
