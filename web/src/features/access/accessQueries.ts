import { queryOptions } from '@tanstack/react-query'
import { api, type Schema, unwrap } from '../../api/client'

export const accessQueries = {
  list: (calendarId: string) =>
    queryOptions({
      queryKey: ['access', calendarId],
      queryFn: ({ signal }) =>
        unwrap(api.GET('/api/calendars/{calendarId}/access', { params: { path: { calendarId } }, signal })),
    }),
  meaning: (calendarId: string, addresses: string[], role: Schema['Role']) =>
    queryOptions({
      queryKey: ['access', calendarId, 'meaning', addresses, role],
      queryFn: ({ signal }) =>
        unwrap(
          api.POST('/api/calendars/{calendarId}/invitations/meaning', {
            params: { path: { calendarId } },
            body: { addresses, role },
            signal,
          }),
        ),
    }),
}

const named = (set: string) => ({ 'X-Change-Set': set })

export const invite = (calendarId: string, invitationId: string, body: Schema['InviteBody'], set: string) =>
  unwrap(
    api.PUT('/api/calendars/{calendarId}/invitations/{invitationId}', {
      params: { path: { calendarId, invitationId } },
      headers: named(set),
      body,
    }),
  )

export const sendAgain = (calendarId: string, invitationId: string, set: string) =>
  unwrap(
    api.POST('/api/calendars/{calendarId}/invitations/{invitationId}/send-again', {
      params: { path: { calendarId, invitationId } },
      headers: named(set),
    }),
  )

export const withdraw = (calendarId: string, invitationId: string, set: string) =>
  unwrap(
    api.DELETE('/api/calendars/{calendarId}/invitations/{invitationId}', {
      params: { path: { calendarId, invitationId } },
      headers: named(set),
    }),
  )

export const setRole = (calendarId: string, personId: string, role: Schema['Role'], set: string) =>
  unwrap(
    api.PUT('/api/calendars/{calendarId}/access/{personId}', {
      params: { path: { calendarId, personId } },
      headers: named(set),
      body: { role },
    }),
  )

export const endAccess = (calendarId: string, personId: string, set: string) =>
  unwrap(
    api.DELETE('/api/calendars/{calendarId}/access/{personId}', {
      params: { path: { calendarId, personId } },
      headers: named(set),
    }),
  )
