import { keepPreviousData, queryOptions } from '@tanstack/react-query'
import { api, type Schema, unwrap } from '../../api/client'
import { bricksWithTexts, withTexts } from '../../api/texts'
import { keepAlike } from './keepAlike'
import { withChanges } from './withChanges'

/** A wall that is not one's own: somebody else's, or of a group that is at rest. */
export type OtherWall = { as?: string } | { atRest?: string }

/**
 * Everything on one's wall between two days; or what somebody else sees of the calendars one coordinates, or what is in a
 * group that is at rest. What was there stays until the new is; of what is known only what changed since is asked for.
 */
export const wallQuery = (from: string, to: string, other: OtherWall = {}) =>
  queryOptions({
    queryKey: ['wall', from, to, ...Object.values(other)],
    queryFn: async ({ signal, client, queryKey }) => {
      const known = client.getQueryData<Schema['WallBody']>(queryKey)
      if (known?.version) {
        const since = known.version
        const changes = await unwrap(
          api.GET('/api/wall/changes', { params: { query: { from, to, since } }, signal }),
        )
        if (!changes.whole)
          return withChanges(client.getQueryData<Schema['WallBody']>(queryKey) ?? known, changes)
      }
      return bricksWithTexts(
        await unwrap(api.GET('/api/wall', { params: { query: { from, to, ...other } }, signal })),
      )
    },
    placeholderData: keepPreviousData,
    structuralSharing: keepAlike,
  })

/** How full some weeks are and where they clash, over the layers that are shown. */
export const ribbonQuery = (from: string, weeks: number, calendars: readonly string[]) =>
  queryOptions({
    queryKey: ['ribbon', from, weeks, calendars],
    queryFn: ({ signal }) =>
      unwrap(
        api.GET('/api/ribbon', { params: { query: { from, weeks, calendars: [...calendars] } }, signal }),
      ),
    placeholderData: keepPreviousData,
  })

export interface Search {
  words: string
  person: string
  calendar: string
  kind: string
  from: string
  to: string
}

/** People, calendars and groups one knows of, by their names. */
export const knownQuery = (words: string) =>
  queryOptions({
    queryKey: ['find', 'known', words],
    queryFn: ({ signal }) => unwrap(api.GET('/api/find/known', { params: { query: { words } }, signal })),
    placeholderData: keepPreviousData,
  })

/** Events by words and more, over everything one may see. */
export const findQuery = (search: Search) =>
  queryOptions({
    queryKey: ['find', search],
    queryFn: async ({ signal }) => {
      const found = await unwrap(
        api.GET('/api/find', {
          params: {
            query: {
              from: search.from,
              to: search.to,
              words: search.words,
              kind: search.kind,
              ...(search.person ? { person: search.person } : {}),
              ...(search.calendar ? { calendar: search.calendar } : {}),
            },
          },
          signal,
        }),
      )
      return { ...found, hits: found.hits.map((hit) => withTexts(hit, found.texts)) }
    },
    placeholderData: keepPreviousData,
  })
