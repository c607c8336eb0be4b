import { queryOptions } from '@tanstack/react-query'
import { api, type Schema, unwrap } from '../../api/client'

export type MomentFate = Schema['MomentFate']
export type MomentThing = Schema['BringBackToMomentThingBody']

/** What bringing a calendar back to a moment would do; nothing is written. */
export const momentQuery = (calendarId: string, at: string) =>
  queryOptions({
    queryKey: ['history', 'moment', calendarId, at],
    queryFn: ({ signal }) =>
      unwrap(
        api.GET('/api/calendars/{calendarId}/moment', {
          params: { path: { calendarId }, query: { at } },
          signal,
        }),
      ),
    enabled: at !== '',
    retry: false,
    staleTime: 0,
  })

export const bringBackTo = (calendarId: string, at: string, set: string) =>
  unwrap(
    api.POST('/api/calendars/{calendarId}/moment', {
      params: { path: { calendarId } },
      headers: { 'X-Change-Set': set },
      body: { at },
    }),
  )
