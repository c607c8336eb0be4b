import type { Place } from './grip'

/** Where a point of the screen lies on a wall of cells (data-cell, and data-row where there are rows); null outside of them. */
export function cellAt(x: number, y: number): Place | null {
  const cell = document
    .elementsFromPoint(x, y)
    .map((one) => one.closest('[data-cell]'))
    .find((one) => one !== null)
  const day = cell?.getAttribute('data-cell')
  return cell && day ? { day, minute: null, lane: cell.getAttribute('data-row') ?? '' } : null
}
