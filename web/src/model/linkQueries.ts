import { keepPreviousData, queryOptions } from '@tanstack/react-query'
import { api, type Schema, unwrap } from '../api/client'
import { bricksWithTexts } from '../api/texts'

const named = (set: string) => ({ 'X-Change-Set': set })

/** Makes a link, or changes what it gives. Its address is in the answer when it is made, and never again. */
export const putLink = (calendarId: string, linkId: string, body: Schema['LinksBody'], set: string) =>
  unwrap(
    api.PUT('/api/calendars/{calendarId}/links/{linkId}', {
      params: { path: { calendarId, linkId } },
      headers: named(set),
      body,
    }),
  )

export const renewLink = (calendarId: string, linkId: string, set: string) =>
  unwrap(
    api.POST('/api/calendars/{calendarId}/links/{linkId}/renew', {
      params: { path: { calendarId, linkId } },
      headers: named(set),
    }),
  )

export const endLink = (calendarId: string, linkId: string, set: string) =>
  unwrap(
    api.DELETE('/api/calendars/{calendarId}/links/{linkId}', {
      params: { path: { calendarId, linkId } },
      headers: named(set),
    }),
  )

/** What a link leads to. */
export const linkQuery = (secret: string) =>
  queryOptions({
    queryKey: ['link', secret],
    queryFn: ({ signal }) => unwrap(api.GET('/api/links/{secret}', { params: { path: { secret } }, signal })),
    retry: false,
  })

/** What is to be read by a link from one day to another. */
export const linkWallQuery = (secret: string, from: string, to: string) =>
  queryOptions({
    queryKey: ['link', secret, from, to],
    queryFn: async ({ signal }) =>
      bricksWithTexts(
        await unwrap(
          api.GET('/api/links/{secret}/wall', { params: { path: { secret }, query: { from, to } }, signal }),
        ),
      ),
    placeholderData: keepPreviousData,
  })

/** What a coordinator's own link leads to and shows, by the same path as for who opens it: they have its secret no more. */
export const ownLinkQuery = (calendarId: string, linkId: string) =>
  queryOptions({
    queryKey: ['link', calendarId, linkId],
    queryFn: ({ signal }) =>
      unwrap(
        api.GET('/api/calendars/{calendarId}/links/{linkId}', {
          params: { path: { calendarId, linkId } },
          signal,
        }),
      ),
    retry: false,
  })

export const ownLinkWallQuery = (calendarId: string, linkId: string, from: string, to: string) =>
  queryOptions({
    queryKey: ['link', calendarId, linkId, from, to],
    queryFn: async ({ signal }) =>
      bricksWithTexts(
        await unwrap(
          api.GET('/api/calendars/{calendarId}/links/{linkId}/wall', {
            params: { path: { calendarId, linkId }, query: { from, to } },
            signal,
          }),
        ),
      ),
    placeholderData: keepPreviousData,
  })

/** Makes an account where a link is opened, and puts its calendar on the new wall. */
export const makeAccountAtLink = (secret: string, body: Schema['AccountAtLinkBody']) =>
  unwrap(api.POST('/api/links/{secret}/account', { params: { path: { secret } }, body }))

export const takeByLink = (secret: string) =>
  unwrap(api.POST('/api/links/{secret}/use', { params: { path: { secret } } }))
