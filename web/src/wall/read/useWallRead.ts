import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useMemo } from 'react'
import type { Schema } from '../../api/client'
import { type Brick, clashesOf, type Layer } from '../../model/bricks'
import { useReader } from '../../reader/person'
import { rowsOf, rowsOfBrick } from '../roster/roster'
import { elsewhereText } from '../wallWords'
import { lanesOf } from '../week/lanes'
import { useLaid } from './useLaid'
import { usePeopleTimes } from './usePeopleTimes'
import { useThen } from './useThen'
import type { useWallGroup } from './useWallGroup'
import type { WallPlace } from './useWallPlace'
import { wallQuery } from './wallQuery'

const noBricks: Brick[] = []
const noPeople: Schema['GroupsMemberBody'][] = []

/** What lies on the wall, and in whose rows: one's layers with their bricks, and the times of the people beside them. */
export function useWallRead(at: WallPlace, group: ReturnType<typeof useWallGroup>, now: string) {
  const { view, narrow, as, who, period, beside } = at
  const then = useThen(at)
  const { first, last } = period
  const { layers, people, isAtRest } = group
  const other = useMemo(
    () => (as ? { as } : isAtRest && group.group ? { atRest: group.group.id } : {}),
    [as, isAtRest, group.group],
  )
  const isOther = as !== null || isAtRest
  const { person } = useReader()
  const queries = useQueryClient()
  const wall = useQuery(wallQuery(first, last, other))
  const laid = useLaid(wall.data, `${view} ${first} ${last} ${Object.values(other)}`)

  // The periods beside this one are there before they are asked for, so that nothing is ever blank.
  const isFetched = wall.isSuccess && !wall.isPlaceholderData
  useEffect(() => {
    if (!isFetched) return
    for (const near of beside) void queries.prefetchQuery(wallQuery(near.first, near.last, other))
  }, [isFetched, queries, beside, other])

  const others = usePeopleTimes(
    isOther ? noPeople : people,
    person.id,
    first,
    last,
    (id) => view === 'roster' || (view === 'day' && !narrow) || who.includes(id),
  )
  const byId = useMemo(
    () => layersById(layers, others.layers, then.calendarId),
    [layers, others.layers, then.calendarId],
  )
  // The hour matters to what stands under names, the minute does not.
  const hour = `${now.slice(0, 13)}:00:00`
  const rows = useMemo(() => {
    const shown = people.filter((one) => who.length === 0 || who.includes(one.personId))
    return rowsOf(
      shown.map((one) => ({
        personId: one.personId,
        name: one.name,
        note: noteOf(one, person.zone, hour),
      })),
      [...byId.values()],
    )
  }, [people, who, byId, person.zone, hour])
  const rowKeys = useMemo(() => new Set(rows.map((row) => row.key)), [rows])
  const bricks = useMemo(
    () =>
      [
        ...onlySeen([...(laid?.bricks ?? noBricks), ...then.bricks], isOther || then.calendarId !== null),
        ...others.bricks,
      ].filter((brick) => {
        const layer = byId.get(brick.calendarId)
        if (!layer) return false
        return (
          who.length === 0 || rowsOfBrick(brick, layer, rowKeys).some((key) => who.includes(key.slice(7)))
        )
      }),
    [laid, others.bricks, isOther, then, byId, who, rowKeys],
  )
  const inDay = view === 'day' ? bricks : noBricks
  const struck = laid?.clashes
  return {
    isRead: wall.isSuccess,
    /** Whether these are the days in view, and not those that were before, until these come. */
    isHere: isFetched || wall.isError,
    error: wall.error,
    byId,
    rows,
    rowKeys,
    /** Whose rows there are. */
    inView: useMemo(() => rows.map((row) => row.personId).filter((id) => id !== null), [rows]),
    bricks,
    /** The columns of a day. */
    lanes: useMemo(
      () => lanesOf(view, narrow, rows, who, inDay, byId),
      [view, narrow, rows, who, inDay, byId],
    ),
    fates: then.fates,
    clashes: useMemo(() => clashesOf(struck ?? []), [struck]),
  }
}

export type WallRead = ReturnType<typeof useWallRead>

/** Those that are shown, and the one that is looked at as it was. */
const layersById = (
  layers: readonly Layer[],
  others: readonly Layer[],
  then: string | null,
): ReadonlyMap<string, Layer> =>
  new Map(
    [...layers.filter((layer) => layer.shown || layer.calendarId === then), ...others].map((layer) => [
      layer.calendarId,
      layer,
    ]),
  )

/** What stands under a name: what o'clock it is there, or that they coordinate the group. */
const noteOf = (one: Schema['GroupsMemberBody'], zone: string, hour: string): string =>
  one.zone === zone ? (one.coordinates ? 'coordinates' : '') : elsewhereText(one.zone, zone, hour)

/** Bricks as they are where one only looks, through somebody else's eyes or at a moment: nothing of it is taken in hand. */
const onlySeen = (bricks: readonly Brick[], isOnlySeen: boolean): readonly Brick[] =>
  isOnlySeen
    ? bricks.map((brick) => (brick.form === 'event' ? { ...brick, mayChange: false } : brick))
    : bricks
