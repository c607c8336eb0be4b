import type { Schema } from '../api/client'

export type Hue = Schema['Hue']

/** The twelve hues in the order of the circle, with the names of glazes. */
export const hues: readonly { value: Hue; label: string }[] = [
  { value: 'iron', label: 'Iron red' },
  { value: 'ember', label: 'Ember' },
  { value: 'ochre', label: 'Ochre' },
  { value: 'olive', label: 'Olive' },
  { value: 'moss', label: 'Moss' },
  { value: 'copper', label: 'Copper green' },
  { value: 'teal', label: 'Teal' },
  { value: 'lake', label: 'Lake' },
  { value: 'cobalt', label: 'Cobalt' },
  { value: 'violet', label: 'Violet' },
  { value: 'plum', label: 'Plum' },
  { value: 'rose', label: 'Rose' },
]

export const purposes: readonly { value: Schema['Purpose']; label: string }[] = [
  { value: 'events', label: 'Events: things that happen' },
  { value: 'away', label: 'Away: who is absent' },
  { value: 'place', label: 'Place: bookings of a room or a kiln' },
]

export const takesChoices: readonly { value: Schema['WhoseTime']; label: string }[] = [
  { value: 'named', label: 'Of those named on the event' },
  { value: 'group', label: 'Of everybody in the group' },
  { value: 'person', label: 'Of one person: it is theirs' },
  { value: 'nobody', label: 'Of nobody: it is to be looked at' },
]

export const tints: readonly { value: Schema['Tint']; label: string }[] = [
  { value: 'even', label: 'Even' },
  { value: 'deep', label: 'Deep' },
  { value: 'pale', label: 'Pale' },
  { value: 'flecked', label: 'Flecked' },
]

/** A look that is not taken yet, so that layers can be told apart. */
export function freeLook<T extends string>(all: readonly T[], taken: readonly T[]): T | undefined {
  return all.find((one) => !taken.includes(one)) ?? all[taken.length % all.length]
}
