import type { Topic } from './historyQueries'

/** What a history can be narrowed to, as the choice says it. */
export const topics: readonly { value: Topic; label: string }[] = [
  { value: 'events', label: 'Events' },
  { value: 'proposals', label: 'Proposed times' },
  { value: 'access', label: 'Access' },
  { value: 'people', label: 'People' },
  { value: 'settings', label: 'Settings' },
]

export const isTopic = (name: string): name is Topic => topics.some(({ value }) => value === name)
