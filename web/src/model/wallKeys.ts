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
