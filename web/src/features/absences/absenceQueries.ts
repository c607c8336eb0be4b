import { keepPreviousData, queryOptions } from '@tanstack/react-query'
import { api, unwrap } from '../../api/client'

/** Agrees to an absence that waits for it, or takes it off the plan; who entered it is told. */
export const agreeToEvent = (
  eventId: string,
  version: number,
  wish: { agrees: boolean; comment: string },
  set: string,
) =>
  unwrap(
    api.PUT('/api/events/{eventId}/agreement', {
      params: { path: { eventId }, header: { 'If-Match': `"${version}"` } },
      headers: { 'X-Change-Set': set },
      body: wish,
    }),
  )

/** The first working day of members of a group after their last day away. */
export const backQuery = (groupId: string | null, last: string, people: readonly string[]) =>
  queryOptions({
    queryKey: ['cover', groupId, 'back', last, people],
    queryFn: ({ signal }) =>
      unwrap(
        api.GET('/api/groups/{groupId}/back', {
          params: { path: { groupId: groupId ?? '' }, query: { last, people: [...people] } },
          signal,
        }),
      ),
    enabled: groupId !== null && people.length > 0,
    placeholderData: keepPreviousData,
    retry: false,
  })

/** How many working days everybody of a group is away in a year. */
export const absencesQuery = (groupId: string, year: number) =>
  queryOptions({
    queryKey: ['cover', groupId, 'absences', year],
    queryFn: ({ signal }) =>
      unwrap(
        api.GET('/api/groups/{groupId}/absences', {
          params: { path: { groupId }, query: { year } },
          signal,
        }),
      ),
    placeholderData: keepPreviousData,
  })
