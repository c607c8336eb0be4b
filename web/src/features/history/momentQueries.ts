import { keepPreviousData, queryOptions } from '@tanstack/react-query'
import { api, type Schema, unwrap } from '../../api/client'
import { withTexts } from '../../api/texts'
import type { MomentPlace } from './momentPlace'

export type MomentFate = Schema['MomentFate']
export type MomentThing = Schema['BringBackToMomentThingBody']

/** What bringing a calendar back to a moment would do; nothing is written. */
export const momentQuery = (calendarId: string, at: string) =>
  queryOptions({
    queryKey: ['history', 'moment', calendarId, at],
    queryFn: ({ signal }) =>
      unwrap(
        api.GET('/api/calendars/{calendarId}/moment', {
          params: { path: { calendarId }, query: { at } },
          signal,
        }),
      ),
    enabled: at !== '',
    retry: false,
    staleTime: 0,
  })

/** What would not stay as it is on some days, date by date. */
export const momentWallQuery = (moment: MomentPlace | null, from: string, to: string) =>
  queryOptions({
    queryKey: ['history', 'moment', 'wall', moment?.calendarId, moment?.at, from, to],
    queryFn: async ({ signal }) => {
      const { calendarId, at } = moment ?? { calendarId: '', at: '' }
      const { dates, texts } = await unwrap(
        api.GET('/api/calendars/{calendarId}/moment/wall', {
          params: { path: { calendarId }, query: { at, from, to } },
          signal,
        }),
      )
      return dates.map((date) => ({ ...date, brick: withTexts(date.brick, texts) }))
    },
    enabled: moment !== null,
    retry: false,
    placeholderData: keepPreviousData,
    staleTime: 0,
  })

export const bringBackTo = (calendarId: string, at: string, set: string) =>
  unwrap(
    api.POST('/api/calendars/{calendarId}/moment', {
      params: { path: { calendarId } },
      headers: { 'X-Change-Set': set },
      body: { at },
    }),
  )
