import { keepPreviousData, queryOptions } from '@tanstack/react-query'
import { api, type Schema, unwrap } from '../api/client'
import { withTexts } from '../api/texts'
import type { Time } from './bricks'

/** `named` is who is named on what is made in it: of many who are asked for nearly all, so the answer tells the others. */
export type Gap = Omit<Schema['FindGapsGapBody'], 'unnamed'> & { readonly named: readonly string[] }
/** What names the time that something would be put at in a gap. */
export const gapTime = (gap: Gap): string => `${gap.suggested}/${gap.suggestedEnd}`

export type GapAnswer = Omit<Schema['FindGapsAnswer'], 'gaps'> & { readonly gaps: readonly Gap[] }
export type GapQuestion = Schema['FindGapsBody']
export type Clash = Schema['ReadClashesClashBody']
export type Untold = Schema['ReadClashesUntoldBody']
export type FreeAnswer = Schema['AskFreeAnswer']

/** When people and places are free together; the last answer stays until the next one is there. */
export const gapsQuery = (question: GapQuestion) =>
  queryOptions({
    queryKey: ['gaps', question],
    queryFn: async ({ signal }): Promise<GapAnswer> => {
      const found = await unwrap(api.POST('/api/gaps', { body: question, signal }))
      const people = found.people.filter((one) => !one.isPlace).map((one) => one.id)
      return {
        ...found,
        gaps: found.gaps.map(({ unnamed, ...gap }) => {
          const left = new Set(unnamed)
          return { ...gap, named: people.filter((one) => !left.has(one)) }
        }),
      }
    },
    placeholderData: keepPreviousData,
    retry: false,
  })

/** How people and places are at a time, and when it works for all of them. */
export const freeQuery = (
  people: readonly string[],
  places: readonly string[],
  time: Time,
  group: string | null,
  except: string | null = null,
) =>
  queryOptions({
    queryKey: ['free', people, places, time, group, except],
    queryFn: ({ signal }) =>
      unwrap(
        api.POST('/api/free', {
          body: { people: [...people], places: [...places], time, group, except },
          signal,
        }),
      ),
    placeholderData: keepPreviousData,
    retry: false,
  })

/** What collides in some days and is one's own to resolve. */
export const clashesQuery = (from: string, to: string) =>
  queryOptions({
    queryKey: ['clashes', from, to],
    queryFn: async ({ signal }) => {
      const found = await unwrap(api.GET('/api/clashes', { params: { query: { from, to } }, signal }))
      return {
        ...found,
        clashes: found.clashes.map((one) => ({
          ...one,
          first: withTexts(one.first, found.texts),
          second: withTexts(one.second, found.texts),
        })),
      }
    },
    placeholderData: keepPreviousData,
  })

/** What collides, in some days, with what is not told: of the people on events that one may change. */
export const untoldQuery = (from: string, to: string) =>
  queryOptions({
    // Asked again with the other clashes, whatever makes them change.
    queryKey: ['clashes', 'untold', from, to],
    queryFn: async ({ signal }) => {
      const found = await unwrap(api.GET('/api/clashes/untold', { params: { query: { from, to } }, signal }))
      return found.clashes.map((one) => ({ ...one, event: withTexts(one.event, found.texts) }))
    },
    placeholderData: keepPreviousData,
  })

/** One time of a clash is fine as it is, until one of the two changes. */
export const markFine = (key: string, from: string, to: string, set: string) =>
  unwrap(
    api.POST('/api/clashes/{key}/fine', {
      params: { path: { key }, query: { from, to } },
      headers: { 'X-Change-Set': set },
    }),
  )

export type CoverAnswer = Schema['ReadCoverBody']

/** Day by day who is there and who is away, against how many are needed; as it would be without some, all the time or in some hours. */
export const coverQuery = (
  groupId: string,
  from: string,
  to: string,
  without: readonly string[] = [],
  hours: { start: string; end: string } | null = null,
) =>
  queryOptions({
    queryKey: ['cover', groupId, from, to, without, hours],
    queryFn: ({ signal }) =>
      unwrap(
        api.GET('/api/groups/{groupId}/cover', {
          params: {
            path: { groupId },
            query: {
              from,
              to,
              without: [...without],
              ...(hours && { awayFrom: hours.start, awayTo: hours.end }),
            },
          },
          signal,
        }),
      ),
    placeholderData: keepPreviousData,
    retry: false,
  })
