import { type RefObject, useLayoutEffect, useState } from 'react'

/** How wide an element is, in whole pixels; measured once for all that lies in it. */
export function useWidth(of: RefObject<HTMLElement | null>): number {
  const [width, setWidth] = useState(1000)
  useLayoutEffect(() => {
    const box = of.current
    if (!box) return
    const measure = () => setWidth(Math.round(box.getBoundingClientRect().width))
    measure()
    const observer = new ResizeObserver(measure)
    observer.observe(box)
    return () => observer.disconnect()
  }, [of])
  return width
}
