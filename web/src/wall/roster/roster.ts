import { type Brick, brickKey, type EventBrick, type Layer, type Time, timeOf } from '../../model/bricks'
import { daysOf, isLong } from '../../model/times'
import { type Bar, barsOf } from '../hand/geometry'

/** One row of the roster: what concerns everybody, a member, a place, or a layer that is set beside. */
export interface RosterRow {
  key: string
  kind: 'everyone' | 'person' | 'place' | 'layer'
  name: string
  /** What stands under the name. */
  note: string
  personId: string | null
  calendarId: string | null
}

export interface Member {
  personId: string
  name: string
  note: string
}

/** The rows, in their order: everybody, the members, the places, and what is set beside. */
export function rowsOf(members: readonly Member[], layers: readonly Layer[]): RosterRow[] {
  return [
    { key: 'everyone', kind: 'everyone', name: 'Everyone', note: '', personId: null, calendarId: null },
    ...members.map(
      (member): RosterRow => ({
        key: `person/${member.personId}`,
        kind: 'person',
        name: member.name,
        note: member.note,
        personId: member.personId,
        calendarId: null,
      }),
    ),
    ...layers
      .filter((layer) => layer.purpose === 'place' || layer.beside)
      .map(
        (layer): RosterRow => ({
          key: `layer/${layer.calendarId}`,
          kind: layer.purpose === 'place' ? 'place' : 'layer',
          name: layer.name,
          note: layer.purpose === 'place' ? 'place' : 'beside',
          personId: null,
          calendarId: layer.calendarId,
        }),
      ),
  ]
}

/** The rows a brick lies in: those of its people, its place, its own lane, and everybody where it names nobody. */
export function rowsOfBrick(
  brick: Brick,
  layer: Pick<Layer, 'takes' | 'person' | 'purpose' | 'beside' | 'calendarId'>,
  known: ReadonlySet<string>,
): string[] {
  const named = brick.form === 'event' ? brick.attendees : []
  const people = [...new Set([...(layer.takes === 'person' && layer.person ? [layer.person] : []), ...named])]
    .map((person) => `person/${person}`)
    .filter((key) => known.has(key))
  const lane = layer.purpose === 'place' || layer.beside ? [`layer/${layer.calendarId}`] : []
  const rows = [...people, ...lane]
  return rows.length > 0 && layer.takes !== 'group' ? rows : [...rows, 'everyone']
}

/** Somebody's week: bars over several days in lanes, and what lies in one day, day by day, in order. */
export interface RosterLine {
  row: RosterRow
  bars: Bar[]
  lanes: number
  cells: Brick[][]
}

/** Lays bricks into rows and days. */
export function linesOf(
  rows: readonly RosterRow[],
  bricks: readonly Brick[],
  layers: ReadonlyMap<string, Layer>,
  days: readonly string[],
  zone: string,
): RosterLine[] {
  const known = new Set(rows.map((row) => row.key))
  const byRow = new Map<string, Brick[]>(rows.map((row) => [row.key, []]))
  for (const brick of bricks) {
    const layer = layers.get(brick.calendarId)
    if (!layer) continue
    for (const key of rowsOfBrick(brick, layer, known)) byRow.get(key)?.push(brick)
  }
  return rows.map((row) => {
    const all = byRow.get(row.key) ?? []
    const ranges = all.filter((brick) => isRange(timeOf(brick, zone)))
    const bars = barsOf(ranges, days, zone)
    const cells = days.map((): Brick[] => [])
    for (const brick of all) {
      if (ranges.includes(brick)) continue
      const { first, last } = daysOf(timeOf(brick, zone))
      days.forEach((day, index) => {
        if (first <= day && day <= last) cells[index]?.push(brick)
      })
    }
    for (const cell of cells) cell.sort((a, b) => order(a, b, zone))
    return { row, bars, lanes: Math.max(0, ...bars.map((bar) => bar.lane + 1)), cells }
  })
}

const isRange = (time: Time): boolean => {
  const { first, last } = daysOf(time)
  return isLong(time) && first !== last
}

/** Whole days first, then by the hour, then by name. */
function order(a: Brick, b: Brick, zone: string): number {
  const start = (brick: Brick) => {
    const time = timeOf(brick, zone)
    return time.form === 'days' ? '' : time.start
  }
  return start(a).localeCompare(start(b)) || brickKey(a).localeCompare(brickKey(b))
}

/** The people of a brick after it was carried from one row to another: one goes, the other comes. */
export function carriedTo(brick: EventBrick, from: RosterRow, to: RosterRow): string[] {
  if (from.key === to.key || to.kind === 'place' || to.kind === 'layer') return [...brick.attendees]
  const left = brick.attendees.filter((person) => person !== from.personId)
  return to.personId && !left.includes(to.personId) ? [...left, to.personId] : left
}
