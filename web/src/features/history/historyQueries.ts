import { infiniteQueryOptions } from '@tanstack/react-query'
import { api, type Schema, unwrap } from '../../api/client'

export type PastAct = Schema['HistoryActBody']
export type Topic = PastAct['topic']

/** Of what a history is: of what one did oneself, of a calendar, of a group. */
export type HistoryOf = { calendarId: string } | { groupId: string } | 'mine'

/** What of it is looked for. */
export interface HistoryWish {
  actor?: string
  topic?: Topic
  event?: string
  from?: string
  to?: string
}

export const historyQuery = (of: HistoryOf, wish: HistoryWish) =>
  infiniteQueryOptions({
    queryKey: ['history', of, wish],
    queryFn: ({ pageParam, signal }) => {
      const query = { ...wish, ...(pageParam && { before: pageParam }) }
      if (of === 'mine') return unwrap(api.GET('/api/history', { params: { query }, signal }))
      return 'calendarId' in of
        ? unwrap(
            api.GET('/api/calendars/{calendarId}/history', {
              params: { path: { calendarId: of.calendarId }, query },
              signal,
            }),
          )
        : unwrap(
            api.GET('/api/groups/{groupId}/history', {
              params: { path: { groupId: of.groupId }, query },
              signal,
            }),
          )
    },
    initialPageParam: '',
    getNextPageParam: ({ next }) => next ?? undefined,
    staleTime: 0,
  })
