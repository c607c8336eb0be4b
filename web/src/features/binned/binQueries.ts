import { queryOptions } from '@tanstack/react-query'
import { api, type Schema, unwrap } from '../../api/client'

export type BinEntry = Schema['BinEntryBody']
export type BinnedThing = Schema['BinThingBody']
export type BinPlace = Schema['BinPlaceBody']

/** What was deleted and one can bring back. */
export const binQuery = queryOptions({
  queryKey: ['bin'],
  queryFn: ({ signal }) => unwrap(api.GET('/api/bin', { signal })),
  staleTime: 0,
})

/** All that one act deleted of a calendar. */
export const binnedEventsQuery = ({ act, calendarId }: BinPlace) =>
  queryOptions({
    queryKey: ['bin', act, calendarId],
    queryFn: ({ signal }) =>
      unwrap(
        api.GET('/api/bin/{act}/events', {
          params: { path: { act: act ?? '' }, query: { calendar: calendarId ?? '' } },
          signal,
        }),
      ),
  })

/** Brings something back, a booking at another time where a start is given. */
export const bringBack = (place: BinPlace, start: string | undefined, set: string) =>
  unwrap(api.POST('/api/bin/bring-back', { headers: { 'X-Change-Set': set }, body: { place, start } }))

/** The nearest times at which a booking whose own time is taken can come back. */
export const nearestBack = (place: BinPlace) => unwrap(api.POST('/api/bin/nearest', { body: place }))

/** Has something go for good; what it is is typed to show that it is meant. */
export const eraseForGood = (place: BinPlace, name: string) =>
  unwrap(api.POST('/api/bin/erase', { body: { place, name } }))
