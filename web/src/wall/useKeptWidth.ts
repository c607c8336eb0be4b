import { type RefObject, useEffect } from 'react'
import { useWidth } from './useWidth'

/** How wide a day has to be that four bricks abreast still say something, in pixels. */
const readable = 150

/** What stands before the days: the hours. */
const hoursPx = 52

/**
 * The width the days keep while a desk lies beside the wall, in pixels: that of the whole window, where they would be too
 * narrow to be read otherwise. The desk then lies over the last of them and the wall can be pushed aside; what is on the
 * desk is brought into sight. Undefined where there is room for both.
 *
 * @param beside What is on the desk, an empty text where that is nothing of the wall; null where there is no desk.
 */
export function useKeptWidth(
  box: RefObject<HTMLElement | null>,
  beside: string | null,
  days: number,
): number | undefined {
  const width = useWidth(box)
  const keeps = beside !== null && days > 1 && (width - hoursPx) / days < readable
  useEffect(() => {
    if (!keeps || beside === '') return
    box.current
      ?.querySelector('[data-hand=carried], [data-chosen=true]')
      ?.scrollIntoView({ block: 'nearest', inline: 'nearest' })
  }, [box, keeps, beside])
  return keeps ? window.innerWidth : undefined
}
