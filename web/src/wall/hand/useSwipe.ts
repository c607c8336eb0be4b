import { type RefObject, useEffect, useEffectEvent } from 'react'

/** How far a finger goes across, in pixels, and how long that may take, in milliseconds, to be a swipe and no scrolling or resting. */
const farPx = 64
const longMs = 700

/** The nearest box around something that can itself be pushed aside. */
function pushable(at: EventTarget | null, within: Element): Element | null {
  for (let one = at instanceof Element ? at : null; one && one !== within; one = one.parentElement)
    if (one.scrollWidth > one.clientWidth + 1 && /auto|scroll/.test(getComputedStyle(one).overflowX))
      return one
  return null
}

/**
 * A finger that swipes across goes one period on or back. Where the days themselves are pushed aside it does so only from their
 * end; what carries a brick swipes nothing.
 */
export function useSwipe(box: RefObject<HTMLElement | null>, onStep: (by: number) => void) {
  const step = useEffectEvent(onStep)
  useEffect(() => {
    const within = box.current
    if (!within) return
    let from: { x: number; y: number; at: number; left: boolean; right: boolean } | null = null
    const begin = (event: TouchEvent) => {
      const [touch, other] = event.touches
      from = null
      if (
        !touch ||
        other ||
        !(event.target instanceof Element) ||
        event.target.closest('aside, input, select')
      )
        return
      const days = pushable(event.target, within)
      from = {
        x: touch.clientX,
        y: touch.clientY,
        at: event.timeStamp,
        left: !days || days.scrollLeft <= 2,
        right: !days || days.scrollLeft >= days.scrollWidth - days.clientWidth - 2,
      }
    }
    const go = (event: TouchEvent) => {
      if (event.defaultPrevented || event.touches.length > 1) from = null
    }
    const end = (event: TouchEvent) => {
      const touch = event.changedTouches[0]
      if (!from || !touch) return
      const [across, down] = [touch.clientX - from.x, touch.clientY - from.y]
      const isSwipe =
        Math.abs(across) > farPx &&
        Math.abs(across) > 2 * Math.abs(down) &&
        event.timeStamp - from.at < longMs
      if (isSwipe && across < 0 && from.right) step(1)
      if (isSwipe && across > 0 && from.left) step(-1)
      from = null
    }
    within.addEventListener('touchstart', begin, { passive: true })
    // After the hand, which prevents what it carries something over.
    window.addEventListener('touchmove', go, { passive: true })
    within.addEventListener('touchend', end, { passive: true })
    return () => {
      within.removeEventListener('touchstart', begin)
      window.removeEventListener('touchmove', go)
      within.removeEventListener('touchend', end)
    }
  }, [box])
}
