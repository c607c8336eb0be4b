import { useSyncExternalStore } from 'react'

const narrow = window.matchMedia('(max-width: 639px)')

/** How many days the wall shows: a week, or one day where it is narrow. */
export const useDays = (): number =>
  useSyncExternalStore(
    (changed) => {
      narrow.addEventListener('change', changed)
      return () => narrow.removeEventListener('change', changed)
    },
    () => (narrow.matches ? 1 : 7),
  )
