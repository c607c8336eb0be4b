import { expect, it } from 'vitest'
import { type DeskPlace, deskText, readDesk } from './deskPlace'

const places: DeskPlace[] = [
  { kind: 'writing' },
  { kind: 'event', key: 'e1@2026-03-11T19:00:00' },
  { kind: 'calendar', calendarId: 'c1', part: 'access' },
  { kind: 'newCalendar' },
  { kind: 'newGroup' },
  { kind: 'keys' },
  { kind: 'ask' },
  { kind: 'ask', to: 'Priya Raman' },
]

it.each(places)('a place on the desk is the same after it was an address: $kind', (place) => {
  expect(readDesk(deskText(place))).toEqual(place)
})

it.each([null, '', 'nonsense', 'nonsense~c1'])('%s is no place', (text) => expect(readDesk(text)).toBeNull())

it('an unknown part of a calendar is its first', () => {
  expect(readDesk('calendar~c1~secrets')).toEqual({ kind: 'calendar', calendarId: 'c1', part: 'about' })
})
