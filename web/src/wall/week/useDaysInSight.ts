import { type RefObject, useLayoutEffect, useState } from 'react'

/**
 * Which days are in sight where they are pushed aside, and how one comes to others; nothing where none are pushed.
 *
 * @param before How wide what stands before the days is, in pixels.
 */
export function useDaysInSight(
  box: RefObject<HTMLElement | null>,
  days: readonly string[],
  date: string,
  before: number,
) {
  const [first, setFirst] = useState(0)
  useLayoutEffect(() => {
    if (box.current && days.includes(date)) box.current.scrollLeft = asideFor(box.current, date, before)
  }, [box, days, date, before])
  return {
    first,
    showDay: (day: string) =>
      box.current?.scrollTo({ left: asideFor(box.current, day, before), behavior: 'smooth' }),
    onPushed: () => {
      const scroller = box.current
      if (!scroller || days.length === 0) return
      const away = days.map((day) => Math.abs(asideFor(scroller, day, before) - scroller.scrollLeft))
      setFirst(away.indexOf(Math.min(...away)))
    },
  }
}

/** By how many pixels the days are pushed aside when one of them stands first. */
function asideFor(scroller: HTMLElement, day: string, before: number): number {
  const head = scroller.querySelector(`[data-day="${day}"]`)
  if (!head) return 0
  return Math.round(
    head.getBoundingClientRect().left - scroller.getBoundingClientRect().left + scroller.scrollLeft - before,
  )
}
