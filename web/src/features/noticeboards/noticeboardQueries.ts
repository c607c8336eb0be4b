import { keepPreviousData, queryOptions } from '@tanstack/react-query'
import { api, type Schema, unwrap } from '../../api/client'

export type Noticeboard = Schema['NoticeboardsNoticeboardBody']
export type Settings = Schema['NoticeboardsBody']
export type BoardView = Schema['BoardView']

export const noticeboardsQuery = (groupId: string) =>
  queryOptions({
    queryKey: ['noticeboards', groupId],
    queryFn: ({ signal }) =>
      unwrap(api.GET('/api/groups/{groupId}/noticeboards', { params: { path: { groupId } }, signal })),
  })

/** How it would look to the world, by the code that shows it to the world. */
export const trialQuery = (noticeboardId: string, settings: Settings, view: BoardView | undefined) =>
  queryOptions({
    queryKey: ['noticeboards', 'trial', noticeboardId, settings, view],
    queryFn: ({ signal }) =>
      unwrap(api.POST('/api/noticeboards/trial', { body: { noticeboardId, settings, view }, signal })),
    placeholderData: keepPreviousData,
    retry: false,
  })

/** Whether a name can be had, and which can. */
export const addressQuery = (groupId: string, noticeboardId: string, name: string, title: string) =>
  queryOptions({
    queryKey: ['noticeboards', 'address', groupId, noticeboardId, name, title],
    queryFn: ({ signal }) =>
      unwrap(
        api.GET('/api/groups/{groupId}/noticeboards/address', {
          params: { path: { groupId }, query: { name, title, noticeboardId } },
          signal,
        }),
      ),
    placeholderData: keepPreviousData,
  })

const named = (set: string) => ({ 'X-Change-Set': set })

export const writeNoticeboard = (
  noticeboardId: string,
  version: number | null,
  body: Settings,
  set: string,
): Promise<Noticeboard> =>
  unwrap(
    api.PUT('/api/noticeboards/{noticeboardId}', {
      params: { path: { noticeboardId }, header: version === null ? {} : { 'If-Match': `"${version}"` } },
      headers: named(set),
      body,
    }),
  )

export const openNoticeboard = (noticeboardId: string, set: string) =>
  unwrap(
    api.POST('/api/noticeboards/{noticeboardId}/open', {
      params: { path: { noticeboardId } },
      headers: named(set),
    }),
  )

export const pauseNoticeboard = (noticeboardId: string, set: string) =>
  unwrap(
    api.POST('/api/noticeboards/{noticeboardId}/pause', {
      params: { path: { noticeboardId } },
      headers: named(set),
    }),
  )

export const endNoticeboard = (noticeboardId: string, set: string) =>
  unwrap(
    api.DELETE('/api/noticeboards/{noticeboardId}', {
      params: { path: { noticeboardId } },
      headers: named(set),
    }),
  )

export const takeOffNoticeboard = (noticeboardId: string, calendarId: string, set: string) =>
  unwrap(
    api.DELETE('/api/noticeboards/{noticeboardId}/calendars/{calendarId}', {
      params: { path: { noticeboardId, calendarId } },
      headers: named(set),
    }),
  )

/** What a new one begins with: what comes next, of no calendar yet, found by nobody who was not told. */
export const blankSettings = (groupId: string, zone: string): Settings => ({
  groupId,
  title: '',
  words: '',
  zone,
  name: null,
  layers: [],
  views: ['next', 'month', 'week'],
  theme: 'system',
  accent: 'teal',
  daysAhead: 91,
  showsPlaces: true,
  showsPeople: false,
  showsZone: false,
  offersEvents: true,
  offersFeed: true,
  offersPrint: true,
  listed: false,
  frames: 'nowhere',
  sites: [],
})

export const viewNames: Record<BoardView, string> = { next: 'What comes next', month: 'Month', week: 'Week' }
