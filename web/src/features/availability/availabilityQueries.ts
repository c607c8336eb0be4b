import { keepPreviousData, queryOptions } from '@tanstack/react-query'
import { api, type Schema, unwrap } from '../../api/client'
import type { Time } from '../wall/bricks'

export type Gap = Schema['FindGapsGapBody']
export type GapAnswer = Schema['FindGapsAnswer']
export type GapQuestion = Schema['FindGapsBody']
export type FreeAnswer = Schema['AskFreeAnswer']

/** When people and places are free together; the last answer stays until the next one is there. */
export const gapsQuery = (question: GapQuestion) =>
  queryOptions({
    queryKey: ['gaps', question],
    queryFn: ({ signal }) => unwrap(api.POST('/api/gaps', { body: question, signal })),
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
