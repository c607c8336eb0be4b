import { queryOptions } from '@tanstack/react-query'
import { api, type Schema, unwrap } from '../../api/client'

export type WebLook = Schema['WebCalendarsLookBody']

const path = (calendarId: string) => ({ params: { path: { calendarId } } })

/** How it is with a calendar whose events come from the web. Nobody tells of a fetch that changed nothing, so it is asked for. */
export const webCalendarQuery = (calendarId: string) =>
  queryOptions({
    queryKey: ['webCalendar', calendarId],
    queryFn: ({ signal }) =>
      unwrap(api.GET('/api/calendars/{calendarId}/web', { ...path(calendarId), signal })),
    staleTime: 0,
    refetchInterval: 60_000,
  })

/** What is at an address; nothing is written. */
export const lookAtWeb = (address: string) =>
  unwrap(api.POST('/api/web-calendars/look', { body: { address } }))

export const makeWebCalendar = (calendarId: string, body: Schema['WebCalendarsMakeBody'], set: string) =>
  unwrap(
    api.PUT('/api/calendars/{calendarId}/web', {
      ...path(calendarId),
      headers: { 'X-Change-Set': set },
      body,
    }),
  )

export const moveWebCalendar = (calendarId: string, address: string) =>
  unwrap(api.PUT('/api/calendars/{calendarId}/web/address', { ...path(calendarId), body: { address } }))

export const fetchWebCalendar = (calendarId: string) =>
  unwrap(api.POST('/api/calendars/{calendarId}/web/fetch', path(calendarId)))
