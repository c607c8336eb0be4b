import { useMemo, useState } from 'react'
import type { RosterLine } from './roster'

export type RosterOrder = ReturnType<typeof useRosterOrder>

/** Which rows are shown, in which order: pinned ones first, and always. */
export function useRosterOrder(lines: readonly RosterLine[], pinned: readonly string[]) {
  const [filter, setFilter] = useState('')
  const [byLoad, setByLoad] = useState(false)
  const shown = useMemo(() => {
    const words = filter.trim().toLowerCase()
    const kept = lines.filter(
      (line) => words === '' || line.row.name.toLowerCase().includes(words) || pinned.includes(line.row.key),
    )
    const sorted = byLoad ? kept.toSorted((a, b) => loadOf(b) - loadOf(a)) : kept
    return [
      ...sorted.filter((line) => pinned.includes(line.row.key)),
      ...sorted.filter((line) => !pinned.includes(line.row.key)),
    ]
  }, [lines, filter, byLoad, pinned])
  return { shown, filter, setFilter, byLoad, setByLoad }
}

const loadOf = (line: RosterLine): number =>
  line.bars.length + line.cells.reduce((sum, cell) => sum + cell.length, 0)
