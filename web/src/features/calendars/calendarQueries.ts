import { queryOptions } from '@tanstack/react-query'
import { api, type Schema, unwrap } from '../../api/client'

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

export const deleteCalendar = (calendarId: string, version: number, set: string) =>
  unwrap(
    api.DELETE('/api/calendars/{calendarId}', {
      params: { path: { calendarId }, header: { 'If-Match': `"${version}"` } },
      headers: { 'X-Change-Set': set },
    }),
  )
