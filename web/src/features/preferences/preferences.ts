import { api, type Schema, unwrap } from '../../api/client'

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

/** The number of a weekday: 1 for Monday. */
export const isoDay = (day: Preferences['firstDay']): number =>
  Math.max(1, ['none', ...weekdays].indexOf(day))
