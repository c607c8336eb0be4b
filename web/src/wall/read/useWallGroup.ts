import { useQuery } from '@tanstack/react-query'
import { useMemo } from 'react'
import type { Schema } from '../../api/client'
import { accessTableQuery } from '../../model/accessQueries'
import type { Layer } from '../../model/bricks'
import { groupQueries, lastGroup } from '../../model/groupQueries'
import { shelfAsQuery, shelfAtRestQuery, shelfQuery } from '../../model/shelfQuery'
import { useAddressLayers } from '../../model/useAddressLayers'
import type { WallPlace } from './useWallPlace'

type Group = Schema['GroupsGroupBody']

const noLayers: Layer[] = []
const noGroups: Group[] = []
const noPeople: Schema['GroupsMemberBody'][] = []

/** The layers that lie on the wall, and the group it is about with who is in it. */
export function useWallGroup({ as, named }: WallPlace) {
  const groups = useQuery(groupQueries.list)
  const all = groups.data ?? noGroups
  // One that is at rest is open only where it is asked for.
  const resting = as ? undefined : all.find((one) => one.id === named && one.restsSince !== null)
  const shelf = useQuery(as ? shelfAsQuery(as) : resting ? shelfAtRestQuery(resting.id) : shelfQuery)
  const { layers: kept, address } = useAddressLayers(shelf.data ?? noLayers)
  // What is off the shelf is not on the wall either, unless an address names it.
  const layers = useMemo(
    () =>
      address || !kept.some((layer) => layer.offShelf)
        ? kept
        : kept.map((layer) => (layer.offShelf ? { ...layer, shown: false } : layer)),
    [kept, address],
  )
  const atWork = all.filter((one) => one.restsSince === null)
  const group = resting ?? atWork.find((one) => one.id === (named ?? lastGroup())) ?? busiest(atWork, layers)
  const members = useQuery({ ...groupQueries.members(group?.id ?? ''), enabled: group !== undefined })
  const people = members.data ?? noPeople
  const table = useQuery({
    ...accessTableQuery(group?.id ?? ''),
    enabled: as !== null && group !== undefined,
  })
  return {
    layers,
    /** The layers that the address names, where it names any. */
    address,
    isShelfRead: shelf.isSuccess,
    groups: all,
    group,
    /** Whether it is at rest: it is read and not changed. */
    isAtRest: resting !== undefined,
    /** Whether the address names a group one is not in. */
    isOutside: groups.isSuccess && named !== null && !all.some((one) => one.id === named),
    people,
    arePeopleRead: members.isSuccess,
    names: useMemo(() => new Map(people.map((one) => [one.personId, one.name])), [people]),
    asName: table.data?.people.find((one) => one.personId === as)?.name ?? 'somebody else',
  }
}

/** The group one has most to do with: the one to begin in. */
const busiest = (groups: readonly Group[], layers: readonly Layer[]): Group | undefined =>
  groups.toSorted((a, b) => layersOf(b, layers) - layersOf(a, layers))[0]

const layersOf = (group: Group, layers: readonly Layer[]): number =>
  layers.filter((layer) => layer.groupId === group.id).length
