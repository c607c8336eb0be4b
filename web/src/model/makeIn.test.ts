import { afterEach, expect, test, vi } from 'vitest'
import type { Layer } from './bricks'
import { bookableOf, keepLastCalendar, layerToMakeIn, placesOf, placeText } from './makeIn'

const kept = new Map<string, string>()
vi.stubGlobal('localStorage', {
  getItem: (key: string) => kept.get(key) ?? null,
  setItem: (key: string, value: string) => kept.set(key, value),
})
afterEach(() => kept.clear())

const layer = (calendarId: string, purpose: Layer['purpose'], groupId = 'team') =>
  ({ calendarId, purpose, groupId, may: { add: true }, shown: true }) as Layer

const layers = [
  layer('away', 'away'),
  layer('kiln', 'place'),
  layer('rota', 'events'),
  layer('home', 'events', 'family'),
]

const keep = (calendarId: string) => {
  const written = layers.find((one) => one.calendarId === calendarId)
  if (written) keepLastCalendar(written)
}

test('a new event begins in the open group, where the last one of that group was written', () => {
  keep('kiln')
  keep('home')
  expect(layerToMakeIn(layers, 'team')?.calendarId).toBe('kiln')
  expect(layerToMakeIn(layers, 'family')?.calendarId).toBe('home')
  expect(layerToMakeIn(layers, undefined)?.calendarId).toBe('home')
})

test('where nothing can be added in the open group it begins where the last one was written at all', () => {
  keep('home')
  expect(layerToMakeIn(layers, 'raku')?.calendarId).toBe('home')
})

test('an absence entered last makes the next meeting no absence', () => {
  keep('away')
  expect(layerToMakeIn(layers, 'team')?.calendarId).toBe('rota')
  expect(layerToMakeIn(layers, 'raku')?.calendarId).toBe('rota')
})

test('what the preferences say comes first, and where there is nothing else an absence can be entered', () => {
  expect(layerToMakeIn(layers, 'team', 'away')?.calendarId).toBe('away')
  expect(layerToMakeIn(layers.slice(0, 1), 'team')?.calendarId).toBe('away')
})

test('a place that was looked for is what is booked, where one may add to it, and stands as the place', () => {
  const kiln = { ...layer('kiln', 'place'), name: 'Big kiln' }
  const room = { ...layer('room', 'place'), name: 'Glaze room', may: { add: false } } as Layer
  const sought = placesOf([...layers, kiln, room], ['room', 'kiln', 'rota']).filter((one) => one.name)

  expect(bookableOf(sought)?.calendarId).toBe('kiln')
  expect(bookableOf([room])).toBeUndefined()
  expect(placeText(sought)).toBe('Big kiln, Glaze room')
})
