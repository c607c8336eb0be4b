import { type KeyboardEvent, type RefObject, useState } from 'react'

/** The cell cursor of a grid: arrows move it, Enter makes something where it is. */
export function useCells(
  grid: RefObject<HTMLDivElement | null>,
  rows: number,
  columns: number,
  onPlace: (day: string, lane: string) => void,
) {
  const [cursor, setCursor] = useState({ row: 0, day: 0 })
  const onKeyDown = (event: KeyboardEvent) => {
    const at = (event.target as HTMLElement).closest<HTMLElement>('[data-cell]')
    if (!at || event.target !== at) return
    const by = { ArrowLeft: [0, -1], ArrowRight: [0, 1], ArrowUp: [-1, 0], ArrowDown: [1, 0] }[event.key]
    if (event.key === 'Enter') {
      event.preventDefault()
      onPlace(at.dataset.cell ?? '', at.dataset.row ?? '')
      return
    }
    if (!by) return
    event.preventDefault()
    const next = {
      row: Math.min(rows - 1, Math.max(0, cursor.row + (by[0] ?? 0))),
      day: Math.min(columns - 1, Math.max(0, cursor.day + (by[1] ?? 0))),
    }
    setCursor(next)
    grid.current
      ?.querySelector<HTMLElement>(`[data-at="${next.row}/${next.day}"]`)
      ?.focus({ preventScroll: false })
  }
  return { cursor, setCursor, onKeyDown }
}
