import { useQuery } from '@tanstack/react-query'
import { useMemo } from 'react'
import { bricksOfPeople, layerOfPerson, timesQuery } from './personLayers'

interface Person {
  personId: string
  name: string
  showsBusy: boolean
}

/**
 * The other busy times of people who let one know them, each as a layer of its own: where people have rows or lanes, or
 * are looked at alone.
 */
export function usePeopleTimes(
  people: readonly Person[],
  me: string,
  first: string,
  last: string,
  isShown: (personId: string) => boolean,
) {
  // What is asked for, and not how it was found, decides what is drawn anew.
  const ids = people
    .filter((one) => one.showsBusy && one.personId !== me && isShown(one.personId))
    .map((one) => one.personId)
    .join(' ')
  const times = useQuery({ ...timesQuery(first, last, ids.split(' ')), enabled: ids !== '' })
  const told = ids === '' ? undefined : times.data
  const bricks = useMemo(() => bricksOfPeople(told ?? []), [told])
  const layers = useMemo(
    () =>
      people
        .filter((one) => ids.split(' ').includes(one.personId))
        .map((one) => layerOfPerson(one.personId, one.name)),
    [people, ids],
  )
  return { bricks, layers }
}
