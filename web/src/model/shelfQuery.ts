import { queryOptions } from '@tanstack/react-query'
import { api, type Schema, unwrap } from '../api/client'
import type { Layer } from './bricks'

export const shelfQuery = queryOptions({
  queryKey: ['shelf'],
  queryFn: ({ signal }) => unwrap(api.GET('/api/shelf', { signal })),
})

/** The calendars one coordinates as somebody else has them. */
export const shelfAsQuery = (as: string) =>
  queryOptions({
    queryKey: ['shelf', 'as', as],
    queryFn: ({ signal }) => unwrap(api.GET('/api/shelf', { params: { query: { as } }, signal })),
  })

/** The calendars of a group that is at rest, which are on no shelf. */
export const shelfAtRestQuery = (groupId: string) =>
  queryOptions({
    queryKey: ['shelf', 'atRest', groupId],
    queryFn: ({ signal }) =>
      unwrap(api.GET('/api/shelf', { params: { query: { atRest: groupId } }, signal })),
  })

export type LayerSet = Schema['SetsBody']

export const setsQuery = queryOptions({
  queryKey: ['sets'],
  queryFn: ({ signal }) => unwrap(api.GET('/api/sets', { signal })),
})

/** One's own look where it differs from the calendar's. */
const lookOf = ({ name, hue, mark, calendar }: Layer): Schema['ShelfLookBody'] | null =>
  name === calendar.name && hue === calendar.hue && mark === calendar.mark ? null : { name, hue, mark }

/** How one layer lies on one's own wall. */
export const layLayer = (layer: Layer) =>
  unwrap(
    api.PUT('/api/shelf/{calendarId}', {
      params: { path: { calendarId: layer.calendarId } },
      body: {
        shown: layer.shown,
        beside: layer.beside,
        look: lookOf(layer),
        offShelf: layer.offShelf,
      },
    }),
  )

/** The whole shelf: what is shown, how, in which order. */
export const orderLayers = (layers: readonly Layer[]) =>
  unwrap(
    api.PUT('/api/shelf', {
      body: {
        layers: layers.map(({ calendarId, shown, beside }) => ({ calendarId, shown, beside })),
      },
    }),
  )

export const writeSet = (set: Omit<LayerSet, 'mine'>) =>
  unwrap(
    api.PUT('/api/sets/{setId}', {
      params: { path: { setId: set.id } },
      body: { name: set.name, groupId: set.groupId, layers: set.layers },
    }),
  )

export const deleteSet = (setId: string) =>
  unwrap(api.DELETE('/api/sets/{setId}', { params: { path: { setId } } }))
