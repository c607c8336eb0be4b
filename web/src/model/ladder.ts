import type { Schema } from '../api/client'

export type Role = Schema['Role']

/** The role ladder, lowest first, in the words of the interface. */
export const ladder: readonly { value: Role; label: string }[] = [
  { value: 'times', label: 'Times only' },
  { value: 'outline', label: 'Outline' },
  { value: 'view', label: 'View' },
  { value: 'add', label: 'Add' },
  { value: 'edit', label: 'Edit' },
  { value: 'coordinate', label: 'Coordinate' },
]

/** What can be given to a whole group, by a link, or asked for: nobody coordinates without being named. */
export const lowerSteps = ladder.filter((step) => step.value !== 'coordinate')

export const defaultChoices: readonly { value: Role; label: string }[] = [
  { value: 'none', label: 'nothing, until they are given it' },
  ...lowerSteps,
]

/** Those of some steps that are given on a calendar: nobody changes what comes from the web. */
export const stepsOn = (steps: typeof ladder, { web }: { web: unknown }): typeof ladder =>
  web ? steps.filter((step) => step.value !== 'add' && step.value !== 'edit') : steps

export const roleName = (role: Role): string =>
  ladder.find((step) => step.value === role)?.label ?? 'no access'

/** Whether the interface offers what needs a step. The server decides; this only spares vain tries. */
export const reaches = (role: Role, needed: Role): boolean =>
  ladder.findIndex((step) => step.value === role) >= ladder.findIndex((step) => step.value === needed)

/** Whether there is a step above one's own that is asked for: nobody changes what comes from the web. */
export const canHaveMore = ({ role, web }: { role: Role; web: unknown }): boolean =>
  !reaches(role, web ? 'view' : 'edit')
