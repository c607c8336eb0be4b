import { useSyncExternalStore } from 'react'

const narrow = window.matchMedia('(max-width: 639px)')

/** Whether the screen is a phone's: one day at a time. */
export const useNarrow = (): boolean =>
  useSyncExternalStore(
    (changed) => {
      narrow.addEventListener('change', changed)
      return () => narrow.removeEventListener('change', changed)
    },
    () => narrow.matches,
  )
