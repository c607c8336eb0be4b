import { useDeferredValue, useMemo } from 'react'

/**
 * What lies on the wall, drawn when there is time between what the hand does: a day of hundreds of bricks is laid anew
 * in small pieces instead of in one long one. Another window is drawn at once, so that no moment of it is blank.
 */
export function useLaid<T>(wall: T, window: string): T {
  const asked = useMemo(() => ({ wall, window }), [wall, window])
  const laid = useDeferredValue(asked)
  return laid.window === window ? laid.wall : wall
}
