import { type RefObject, useEffect, useRef } from 'react'

/** What appears because of a press elsewhere is brought before the eye and given the focus, so that nobody misses it. */
export function useBroughtIntoView<T extends HTMLElement>(isMeant = true): RefObject<T | null> {
  const shown = useRef<T>(null)
  useEffect(() => {
    if (!isMeant) return
    shown.current?.scrollIntoView({ block: 'nearest' })
    shown.current?.focus({ preventScroll: true })
  }, [isMeant])
  return shown
}
