import { keepPreviousData, queryOptions } from '@tanstack/react-query'
import { api, unwrap } from '../../api/client'
import { bricksWithTexts, withTexts } from '../../api/texts'
import { keepAlike } from './keepAlike'

/**
 * Everything on one's wall between two days, or what somebody else sees of the calendars one coordinates. What was there
 * stays until the new is.
 */
export const wallQuery = (from: string, to: string, as: string | null = null) =>
  queryOptions({
    queryKey: ['wall', from, to, ...(as ? [as] : [])],
    queryFn: async ({ signal }) =>
      bricksWithTexts(
        await unwrap(
          api.GET('/api/wall', { params: { query: { from, to, ...(as ? { as } : {}) } }, signal }),
        ),
      ),
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
