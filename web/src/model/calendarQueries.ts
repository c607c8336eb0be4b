import { queryOptions } from '@tanstack/react-query'
import { api, type Schema, unwrap } from '../api/client'

export const zonesQuery = queryOptions({
  queryKey: ['zones'],
  queryFn: ({ signal }) => unwrap(api.GET('/api/zones', { signal })),
  staleTime: Number.POSITIVE_INFINITY,
})

export const writeCalendar = (
  calendarId: string,
  version: number | null,
  body: Schema['CalendarsSettingsBody'],
  set: string,
) =>
  unwrap(
    api.PUT('/api/calendars/{calendarId}', {
      params: { path: { calendarId }, header: version === null ? {} : { 'If-Match': `"${version}"` } },
      headers: { 'X-Change-Set': set },
      body,
    }),
  )

/** What would go from whom. */
export const lossQuery = (calendarId: string) =>
  queryOptions({
    queryKey: ['loss', calendarId],
    queryFn: ({ signal }) =>
      unwrap(api.GET('/api/calendars/{calendarId}/loss', { params: { path: { calendarId } }, signal })),
    staleTime: 0,
  })

/** Puts a calendar in the bin; its name is typed to show that this one is meant. */
export const deleteCalendar = (calendarId: string, version: number, name: string, set: string) =>
  unwrap(
    api.DELETE('/api/calendars/{calendarId}', {
      params: { path: { calendarId }, query: { name }, header: { 'If-Match': `"${version}"` } },
      headers: { 'X-Change-Set': set },
    }),
  )
