import { useLayoutEffect } from 'react'

/**
 * Pales the brick that something in the hand was taken from. Done to the element itself, so that taking one up does not
 * draw thousands of others anew.
 */
export function useLeftBehind(key: string | null) {
  useLayoutEffect(() => {
    if (key === null) return
    const left = [...document.querySelectorAll<HTMLElement>(`[data-brick="${CSS.escape(key)}"]`)]
    for (const one of left) one.dataset.hand = 'left'
    return () => {
      for (const one of left) delete one.dataset.hand
    }
  }, [key])
}
