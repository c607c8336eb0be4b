import { useSyncExternalStore } from 'react'

/** Since when the live line is down, in milliseconds of the epoch; null while it stands. */
let since: number | null = null
const watching = new Set<() => void>()

/** Says that the live line went down or stands again; that it is down still changes nothing. */
export function isConnected(stands: boolean) {
  const next = stands ? null : (since ?? Date.now())
  if (next === since) return
  since = next
  for (const tell of watching) tell()
}

/** Since when there is no connection; null while there is. */
export const useDownSince = (): number | null =>
  useSyncExternalStore(
    (changed) => {
      watching.add(changed)
      return () => watching.delete(changed)
    },
    () => since,
  )
