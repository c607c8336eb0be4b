import type { Layer } from './bricks'

const key = 'mortar-last-calendar'

/** Keeps which calendar of a group was written to last on this device; the next new event of that group begins in it. */
export const keepLastCalendar = ({ groupId, calendarId }: Pick<Layer, 'groupId' | 'calendarId'>) => {
  localStorage.setItem(key, calendarId)
  if (groupId) localStorage.setItem(`${key}/${groupId}`, calendarId)
}

/**
 * The layer a new event begins in: the one set in the preferences, even where it is hidden; else, of the open group, the
 * one written to last or one for events; else, where nothing can be added in that group, the same of any other. Whoever
 * entered an absence last does not mean the next meeting to be one.
 */
export function layerToMakeIn(
  layers: readonly Layer[],
  groupId: string | undefined,
  wished: string | null = null,
): Layer | undefined {
  const open = layers.filter((layer) => layer.may.add)
  const shown = open.filter((layer) => layer.shown)
  const ofGroup = shown.filter((layer) => layer.groupId === groupId)
  return (
    open.find((layer) => layer.calendarId === wished) ??
    lastOrFirst(ofGroup, localStorage.getItem(`${key}/${groupId}`)) ??
    lastOrFirst(shown, localStorage.getItem(key)) ??
    ofGroup[0] ??
    shown[0] ??
    open[0]
  )
}

const lastOrFirst = (layers: readonly Layer[], last: string | null): Layer | undefined =>
  layers.find((layer) => layer.calendarId === last && layer.purpose !== 'away') ??
  layers.find((layer) => layer.purpose === 'events')

/** The places among the layers that something was looked for in. */
export const placesOf = (layers: readonly Layer[], places: readonly string[]): Layer[] =>
  layers.filter((layer) => layer.purpose === 'place' && places.includes(layer.calendarId))

/** The one of some places that something new can be put into, so that it is booked. */
export const bookableOf = (places: readonly Layer[]): Layer | undefined =>
  places.find((layer) => layer.may.add)

/** What stands as the place of something that is to be in some places. */
export const placeText = (places: readonly Layer[]): string => places.map((layer) => layer.name).join(', ')
