import type { Brick, Layer } from '../../model/bricks'
import type { View } from '../../model/views'
import { type RosterRow, rowsOfBrick } from '../roster/roster'

/** A lane of each day: everything blended, one layer beside the others, or one person. */
export interface Lane {
  key: string
  name: string
  holds: (brick: Brick) => boolean
}

/** The most lanes a day has room for. */
const mostLanes = 9

/** The lanes of a view: everything blended with what is set beside it, or by day the people. */
export function lanesOf(
  view: View,
  narrow: boolean,
  rows: readonly RosterRow[],
  who: readonly string[],
  bricks: readonly Brick[],
  layers: ReadonlyMap<string, Layer>,
): Lane[] {
  const keys = new Set(rows.map((row) => row.key))
  const inRow = (key: string) => (brick: Brick) => {
    const layer = layers.get(brick.calendarId)
    return layer !== undefined && rowsOfBrick(brick, layer, keys).includes(key)
  }
  if (view === 'day' && (!narrow || who.length > 0)) {
    const used = rows.filter((row) => who.length > 0 || bricks.some(inRow(row.key)))
    if (used.length > 0)
      return used.slice(0, mostLanes).map((row) => ({ key: row.key, name: row.name, holds: inRow(row.key) }))
  }
  const beside = [...layers.values()].filter((layer) => layer.beside)
  const blend: Lane = {
    key: 'blend',
    name: beside.length > 0 ? 'Blended' : '',
    holds: (brick) => !layers.get(brick.calendarId)?.beside,
  }
  return [
    blend,
    ...beside.map((layer) => ({
      key: `layer/${layer.calendarId}`,
      name: layer.name,
      holds: (brick: Brick) => brick.calendarId === layer.calendarId,
    })),
  ]
}
