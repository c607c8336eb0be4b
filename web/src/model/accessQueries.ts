import { keepPreviousData, queryOptions } from '@tanstack/react-query'
import { api, type Schema, unwrap } from '../api/client'

export const accessQueries = {
  list: (calendarId: string) =>
    queryOptions({
      queryKey: ['access', calendarId],
      queryFn: ({ signal }) =>
        unwrap(api.GET('/api/calendars/{calendarId}/access', { params: { path: { calendarId } }, signal })),
    }),
  audience: (calendarId: string) =>
    queryOptions({
      queryKey: ['access', calendarId, 'audience'],
      queryFn: ({ signal }) =>
        unwrap(api.GET('/api/calendars/{calendarId}/audience', { params: { path: { calendarId } }, signal })),
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

/** How a pasted list is understood, before anybody is invited. */
export const readInvitees = (calendarId: string, text: string) =>
  queryOptions({
    queryKey: ['access', calendarId, 'invitees', text],
    queryFn: ({ signal }) =>
      unwrap(
        api.POST('/api/calendars/{calendarId}/invitations/read', {
          params: { path: { calendarId } },
          body: { text },
          signal,
        }),
      ),
    placeholderData: keepPreviousData,
  })

/** Who reaches which calendars of a group at which step, by which ways. */
export const accessTableQuery = (groupId: string) =>
  queryOptions({
    queryKey: ['access', 'table', groupId],
    queryFn: ({ signal }) =>
      unwrap(api.GET('/api/groups/{groupId}/access', { params: { path: { groupId } }, signal })),
    retry: false,
  })

/** Who gave what on a calendar to whom and when. */
export const calendarHistoryQuery = (calendarId: string) =>
  queryOptions({
    queryKey: ['access', calendarId, 'history'],
    queryFn: ({ signal }) =>
      unwrap(
        api.GET('/api/calendars/{calendarId}/access-history', { params: { path: { calendarId } }, signal }),
      ),
  })

/** What was given to a person on those calendars of a group that one coordinates. */
export const personHistoryQuery = (groupId: string, personId: string) =>
  queryOptions({
    queryKey: ['access', 'person', groupId, personId],
    queryFn: ({ signal }) =>
      unwrap(
        api.GET('/api/groups/{groupId}/access-history/{personId}', {
          params: { path: { groupId, personId } },
          signal,
        }),
      ),
  })

const named = (set: string) => ({ 'X-Change-Set': set })

export const invite = (calendarId: string, invitationId: string, body: Schema['InviteBody'], set: string) =>
  unwrap(
    api.PUT('/api/calendars/{calendarId}/invitations/{invitationId}', {
      params: { path: { calendarId, invitationId } },
      headers: named(set),
      body,
    }),
  )

/** Invites all of a list in one act. */
export const inviteMany = (calendarId: string, body: Schema['InviteManyBody'], set: string) =>
  unwrap(
    api.PUT('/api/calendars/{calendarId}/invitations', {
      params: { path: { calendarId } },
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

/** A last day of access; null for no end. */
type LastDay = string | null

export const setRole = (
  calendarId: string,
  personId: string,
  role: Schema['Role'],
  lastDay: LastDay,
  set: string,
) =>
  unwrap(
    api.PUT('/api/calendars/{calendarId}/access/{personId}', {
      params: { path: { calendarId, personId } },
      headers: named(set),
      body: { role, ...(lastDay ? { lastDay } : {}) },
    }),
  )

export const setGroupRole = (
  calendarId: string,
  groupId: string,
  role: Schema['Role'],
  lastDay: LastDay,
  set: string,
) =>
  unwrap(
    api.PUT('/api/calendars/{calendarId}/group-access/{groupId}', {
      params: { path: { calendarId, groupId } },
      headers: named(set),
      body: { role, ...(lastDay ? { lastDay } : {}) },
    }),
  )

export const endGroupAccess = (calendarId: string, groupId: string, set: string) =>
  unwrap(
    api.DELETE('/api/calendars/{calendarId}/group-access/{groupId}', {
      params: { path: { calendarId, groupId } },
      headers: named(set),
    }),
  )

export const askFor = (calendarId: string, role: Schema['Role'], note: string) =>
  unwrap(
    api.PUT('/api/calendars/{calendarId}/asks/{askId}', {
      params: { path: { calendarId, askId: crypto.randomUUID() } },
      body: { role, note },
    }),
  )

/** Asks a person or a group for a calendar of theirs; whether they are here is not told. */
export const askByName = (to: string, role: Schema['Role'], note: string) =>
  unwrap(
    api.PUT('/api/open-asks/{askId}', {
      params: { path: { askId: crypto.randomUUID() } },
      body: { to, role, note },
    }),
  )

export const giveAsk = (askId: string, calendarId: string, role: Schema['Role'], set: string) =>
  unwrap(
    api.POST('/api/open-asks/{askId}/give', {
      params: { path: { askId } },
      headers: named(set),
      body: { calendarId, role },
    }),
  )

export const refuseOpenAsk = (askId: string, set: string) =>
  unwrap(api.POST('/api/open-asks/{askId}/refuse', { params: { path: { askId } }, headers: named(set) }))

export const grantAsk = (askId: string, role: Schema['Role'], set: string) =>
  unwrap(
    api.POST('/api/asks/{askId}/grant', {
      params: { path: { askId } },
      headers: named(set),
      body: { role },
    }),
  )

export const refuseAsk = (askId: string, set: string) =>
  unwrap(api.POST('/api/asks/{askId}/refuse', { params: { path: { askId } }, headers: named(set) }))

export const endAccess = (calendarId: string, personId: string, set: string) =>
  unwrap(
    api.DELETE('/api/calendars/{calendarId}/access/{personId}', {
      params: { path: { calendarId, personId } },
      headers: named(set),
    }),
  )

/** Becomes the coordinator of a calendar that nobody of its group coordinates any more. */
export const takeOverCalendar = (calendarId: string, set: string) =>
  unwrap(
    api.POST('/api/calendars/{calendarId}/take-over', {
      params: { path: { calendarId } },
      headers: named(set),
    }),
  )
