import { api, type Schema, unwrap } from '../api/client'

export type Preferences = Schema['PreferencesBody']

export const writePreferences = (body: Preferences) => unwrap(api.PUT('/api/preferences', { body }))

export const weekdays = [
  'monday',
  'tuesday',
  'wednesday',
  'thursday',
  'friday',
  'saturday',
  'sunday',
] as const satisfies readonly Preferences['firstDay'][]

/** Minutes of the day as "19:00". */
export const asClock = (minutes: number) =>
  `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`

export const asMinutes = (clock: string) => Number(clock.slice(0, 2)) * 60 + Number(clock.slice(3, 5))

/** The number of a weekday: 1 for Monday. */
export const isoDay = (day: Preferences['firstDay']): number =>
  Math.max(1, ['none', ...weekdays].indexOf(day))
