import { asClock } from '../reader/preferences'

interface Need {
  name: string
  begins: number | null
  ends: number | null
}

/** In which hours so many are needed; empty for whole days. */
export const hoursText = ({ begins, ends }: Need): string =>
  begins === null ? '' : ends === null ? `from ${asClock(begins)}` : `${asClock(begins)} to ${asClock(ends)}`

/** What a need is called beside its number: its name and its hours; empty for the group as a whole. */
export const needText = (need: Need): string =>
  [need.name, hoursText(need)].filter((part) => part !== '').join(', ')
