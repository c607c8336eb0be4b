import { queryOptions } from '@tanstack/react-query'
import { api, type Schema, unwrap } from '../../api/client'

export type Reminder = Schema['RemindersBody']
export type ReminderChoice = Schema['RemindersChoiceBody']

/** What one was reminded of and has not put away. */
export const remindersQuery = queryOptions({
  queryKey: ['reminders'],
  queryFn: ({ signal }) => unwrap(api.GET('/api/reminders', { signal })),
})

export const putAway = (eventId: string, start: string) =>
  unwrap(api.POST('/api/reminders/seen', { body: { eventId, start } }))

/** How one is reminded of what is in a calendar. */
export const choiceQuery = (calendarId: string) =>
  queryOptions({
    queryKey: ['reminder', calendarId],
    queryFn: ({ signal }) =>
      unwrap(api.GET('/api/shelf/{calendarId}/reminder', { params: { path: { calendarId } }, signal })),
    retry: false,
  })

export const choose = (calendarId: string, body: ReminderChoice) =>
  unwrap(api.PUT('/api/shelf/{calendarId}/reminder', { params: { path: { calendarId } }, body }))
