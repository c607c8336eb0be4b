import { queryOptions } from '@tanstack/react-query'
import { api, unwrap } from '../../api/client'
import type { EventForm } from './eventForm'

export const eventQuery = (eventId: string, only: string | null) =>
  queryOptions({
    queryKey: ['events', eventId, only],
    queryFn: ({ signal }) =>
      unwrap(
        api.GET('/api/events/{eventId}', {
          params: { path: { eventId }, query: only ? { only } : {} },
          signal,
        }),
      ),
  })

const tag = (version: number | null) => (version === null ? {} : { 'If-Match': `"${version}"` })

export const writeEvent = ({ eventId, only, version, ...form }: EventForm, set: string) =>
  unwrap(
    api.PUT('/api/events/{eventId}', {
      params: { path: { eventId }, query: only ? { only } : {}, header: tag(version) },
      headers: { 'X-Change-Set': set },
      body: {
        calendarId: form.calendarId,
        title: form.title,
        place: form.place,
        notes: form.notes,
        showAs: form.showAs,
        time: form.time,
      },
    }),
  )

export const deleteEvent = (eventId: string, only: string | null, version: number, set: string) =>
  unwrap(
    api.DELETE('/api/events/{eventId}', {
      params: { path: { eventId }, query: only ? { only } : {}, header: tag(version) },
      headers: { 'X-Change-Set': set },
    }),
  )
