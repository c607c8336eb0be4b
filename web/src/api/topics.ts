/** The questions whose answers change with what lies on the wall. */
export const wallKeys = [
  'wall',
  'times',
  'gaps',
  'free',
  'clashes',
  'cover',
  'events',
  'ribbon',
  'find',
] as const

/** What the live line tells of, and the questions whose answers change with it. */
export const topics = {
  wall: [...wallKeys, 'bin', 'history'],
  shelf: ['shelf', 'groups', 'sets', 'guardianships', 'bin', 'history', ...wallKeys],
  groups: ['groups', 'guardianships'],
  access: ['access'],
  inbox: ['inbox'],
  proposals: ['proposals'],
  reminders: ['reminders'],
  noticeboards: ['noticeboards'],
  feeds: ['feeds'],
  devices: ['devices'],
} as const satisfies Record<string, readonly string[]>

export type Topic = keyof typeof topics

export const isTopic = (name: string): name is Topic => name in topics
