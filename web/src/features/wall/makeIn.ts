import { reaches } from '../access/ladder'
import type { Layer } from './bricks'

const key = 'mortar-last-calendar'

/** Keeps which calendar was written to last on this device; the next new event begins in it. */
export const keepLastCalendar = (calendarId: string) => localStorage.setItem(key, calendarId)

/** The layer a new event begins in: the one set in the preferences, even where it is hidden; else the last one written to, else one for events of the open group, else any that is shown. Whoever entered an absence last does not mean the next meeting to be one. */
export function layerToMakeIn(
  layers: readonly Layer[],
  groupId: string | undefined,
  wished: string | null = null,
): Layer | undefined {
  const open = layers.filter((layer) => reaches(layer.role, 'add'))
  const shown = open.filter((layer) => layer.shown)
  const last = localStorage.getItem(key)
  return (
    open.find((layer) => layer.calendarId === wished) ??
    shown.find((layer) => layer.calendarId === last && layer.purpose !== 'away') ??
    shown.find((layer) => layer.groupId === groupId && layer.purpose === 'events') ??
    shown.find((layer) => layer.purpose === 'events') ??
    shown[0] ??
    open[0]
  )
}
