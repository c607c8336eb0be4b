import { keepPreviousData, queryOptions } from '@tanstack/react-query'
import { api, type Schema, unwrap } from '../../api/client'
import type { EventDraft } from '../../model/eventDraft'

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

export type Reach = Schema['Reach']

/** What is asked about a series before it is changed. */
export type ReachAsked = 'change' | 'delete' | null

/** The rule as it is sent: nothing where it stays, empty for no rule any more. */
const ruleOf = (form: EventDraft): string | null =>
  form.rule === (form.before?.rule ?? null) ? null : (form.rule ?? '')

const bodyOf = (form: EventDraft): Schema['EventsBody'] => ({
  calendarId: form.calendarId,
  title: form.title,
  place: form.place,
  notes: form.notes,
  showAs: form.showAs,
  time: form.time,
  attendees: [...form.attendees],
  hidesAttendees: form.hidesAttendees,
  kind: form.kind,
  private: form.private,
  reminder: form.reminder,
  rule: ruleOf(form),
})

/** What a change to one date would come to, for each way it could reach; what deleting would where nothing is wanted. */
export const previewQuery = (form: EventDraft, isDeletion: boolean) =>
  queryOptions({
    queryKey: ['events', form.eventId, 'preview', isDeletion, form],
    queryFn: ({ signal }) =>
      unwrap(
        api.POST('/api/events/{eventId}/preview', {
          params: { path: { eventId: form.eventId } },
          body: { only: form.only ?? '', event: isDeletion ? null : bodyOf(form) },
          signal,
        }),
      ),
  })

/** How it would repeat, as a whole: in words and by its next dates, on the clock of the event. */
export const ruleQuery = (form: EventDraft) =>
  queryOptions({
    queryKey: ['rules', form.eventId, form.only, form.calendarId, form.time, form.rule, form.version],
    queryFn: ({ signal }) =>
      unwrap(
        api.POST('/api/rules/preview', {
          body: {
            time: form.time,
            rule: ruleOf(form),
            calendarId: form.calendarId,
            eventId: form.eventId,
            ...(form.only ? { only: form.only } : {}),
          },
          signal,
        }),
      ),
    placeholderData: keepPreviousData,
    retry: false,
  })

export const historyQuery = (eventId: string) =>
  queryOptions({
    queryKey: ['events', eventId, 'history'],
    queryFn: ({ signal }) =>
      unwrap(api.GET('/api/events/{eventId}/history', { params: { path: { eventId } }, signal })),
  })

export const writeEvent = (form: EventDraft, set: string, reach: Reach) =>
  unwrap(
    api.PUT('/api/events/{eventId}', {
      params: {
        path: { eventId: form.eventId },
        query: form.only ? { only: form.only, reach } : {},
        header: tag(form.before && form.version),
      },
      headers: { 'X-Change-Set': set },
      body: bodyOf(form),
    }),
  )

export const deleteEvent = (form: EventDraft, reach: Reach, set: string) =>
  unwrap(
    api.DELETE('/api/events/{eventId}', {
      params: {
        path: { eventId: form.eventId },
        query: form.only ? { only: form.only, reach } : {},
        header: tag(form.before && form.version),
      },
      headers: { 'X-Change-Set': set },
    }),
  )

/** Hands an event to another organizer. */
export const handOver = (eventId: string, personId: string, version: number | null, set: string) =>
  unwrap(
    api.PUT('/api/events/{eventId}/organizer', {
      params: { path: { eventId }, header: { 'If-Match': `"${version}"` } },
      headers: { 'X-Change-Set': set },
      body: { personId },
    }),
  )

/** Lets just these people, who are named on an event, change it without having its calendar. */
export const letChange = (eventId: string, personIds: string[], version: number | null, set: string) =>
  unwrap(
    api.PUT('/api/events/{eventId}/editors', {
      params: { path: { eventId }, header: { 'If-Match': `"${version}"` } },
      headers: { 'X-Change-Set': set },
      body: { personIds },
    }),
  )
