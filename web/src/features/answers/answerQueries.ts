import { queryOptions } from '@tanstack/react-query'
import { api, type Schema, unwrap } from '../../api/client'

export type Answer = Schema['Answer']
export type Named = Schema['AnswersNamedBody']
export type AnswerBody = Schema['AnswersAnswerBody']

const named = (set: string) => ({ 'X-Change-Set': set })

/** Who is named on an event on one date, and what they answered. */
export const answersQuery = (eventId: string, only: string | null) =>
  queryOptions({
    queryKey: ['events', eventId, 'answers', only],
    queryFn: ({ signal }) =>
      unwrap(
        api.GET('/api/events/{eventId}/answers', {
          params: { path: { eventId }, query: only ? { only } : {} },
          signal,
        }),
      ),
    retry: false,
  })

export const answerEvent = (eventId: string, only: string | null, body: AnswerBody, set: string) =>
  unwrap(
    api.PUT('/api/events/{eventId}/answer', {
      params: { path: { eventId }, query: only ? { only } : {} },
      headers: named(set),
      body,
    }),
  )

/** Asks people who are named on an event whether they come. */
export const askPeople = (eventId: string, personIds: string[], version: number, set: string) =>
  unwrap(
    api.POST('/api/events/{eventId}/ask', {
      params: { path: { eventId }, header: { 'If-Match': `"${version}"` } },
      headers: named(set),
      body: { personIds },
    }),
  )

/** A question that came by mail. */
export const questionByLink = (secret: string) =>
  queryOptions({
    queryKey: ['answering', secret],
    queryFn: ({ signal }) =>
      unwrap(api.GET('/api/answering/{secret}', { params: { path: { secret } }, signal })),
    retry: false,
  })

export const answerByLink = (secret: string, body: AnswerBody) =>
  unwrap(api.PUT('/api/answering/{secret}', { params: { path: { secret } }, body }))
