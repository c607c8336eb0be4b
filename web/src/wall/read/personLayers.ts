import { keepPreviousData, queryOptions } from '@tanstack/react-query'
import { api, type Schema, unwrap } from '../../api/client'
import type { Brick, Layer } from '../../model/bricks'
import { keepAlike } from './keepAlike'

type Times = Schema['ReadTimesBody']

/** When some people are busy beside what lies on one's own layers, where they let one know. */
export const timesQuery = (from: string, to: string, people: readonly string[]) =>
  queryOptions({
    queryKey: ['times', from, to, people],
    queryFn: ({ signal }) =>
      unwrap(api.GET('/api/times', { params: { query: { from, to, people: [...people] } }, signal })),
    placeholderData: keepPreviousData,
    structuralSharing: keepAlike,
    // What is on other people's own calendars is told to no open line.
    refetchInterval: 60_000,
  })

/** Somebody's busy times as a layer of their own, which has no colour: nothing is known of what they are. */
export const layerOfPerson = (personId: string, name: string): Layer => ({
  calendarId: personId,
  groupId: null,
  groupName: null,
  name,
  description: null,
  hue: 'none' as Layer['hue'],
  mark: 'post',
  zone: 'UTC',
  purpose: 'events',
  groupDefault: null,
  takes: 'person',
  person: personId,
  oneAtATime: false,
  agreed: false,
  kinds: [],
  role: 'times',
  ways: [],
  stays: 'none',
  may: { add: false, export: false, history: false, coordinate: false },
  shown: true,
  beside: false,
  offShelf: false,
  calendar: { name, hue: 'none' as Layer['hue'], mark: 'post' },
  web: null,
  version: 0,
})

export const bricksOfPeople = (times: readonly Times[]): Brick[] =>
  times.flatMap(({ personId, stretches }) =>
    stretches.map((one): Brick => ({ form: 'busy', calendarId: personId, ...one })),
  )
