import { afterEach, expect, test, vi } from 'vitest'
import type { Layer } from './bricks'
import { keepLastCalendar, layerToMakeIn } from './makeIn'

const kept = new Map<string, string>()
vi.stubGlobal('localStorage', {
  getItem: (key: string) => kept.get(key) ?? null,
  setItem: (key: string, value: string) => kept.set(key, value),
})
afterEach(() => kept.clear())

const layer = (calendarId: string, purpose: Layer['purpose'], groupId = 'team') =>
  ({ calendarId, purpose, groupId, role: 'edit', shown: true }) as Layer

const layers = [
  layer('away', 'away'),
  layer('kiln', 'place'),
  layer('rota', 'events'),
  layer('home', 'events', 'family'),
]

test('a new event begins where the last one was written', () => {
  keepLastCalendar('home')
  expect(layerToMakeIn(layers, 'team')?.calendarId).toBe('home')
})

test('an absence entered last makes the next meeting no absence', () => {
  keepLastCalendar('away')
  expect(layerToMakeIn(layers, 'team')?.calendarId).toBe('rota')
  expect(layerToMakeIn(layers, 'raku')?.calendarId).toBe('rota')
})

test('what the preferences say comes first, and where there is nothing else an absence can be entered', () => {
  expect(layerToMakeIn(layers, 'team', 'away')?.calendarId).toBe('away')
  expect(layerToMakeIn(layers.slice(0, 1), 'team')?.calendarId).toBe('away')
})
