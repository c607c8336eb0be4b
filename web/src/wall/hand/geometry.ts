import { type Brick, brickKey, timeOf } from '../../model/bricks'
import { daysBetween, daysOf, isLong, minuteOf, minutesInDay } from '../../model/times'

/** The part of a brick that lies in one day, in minutes of that day. */
export interface Piece {
  brick: Brick
  key: string
  day: number
  from: number
  to: number
  /** Which of how many lanes it takes where bricks overlap. */
  lane: number
  lanes: number
  continuesBefore: boolean
  continuesAfter: boolean
}

/** A brick across whole days. */
export interface Bar {
  brick: Brick
  key: string
  first: number
  last: number
  lane: number
  continuesBefore: boolean
  continuesAfter: boolean
}

/** The shortest that is drawn, so that a moment can be seen and met. */
const shortest = 20

/** Cuts bricks by days and gives overlapping ones lanes beside each other. */
export function piecesOf(bricks: readonly Brick[], days: readonly string[], zone: string): Piece[] {
  const pieces = bricks.flatMap((brick) => {
    const time = timeOf(brick, zone)
    if (time.form === 'days' || isLong(time)) return []
    const touched = daysOf(time)
    return days.flatMap((date, day): Piece[] => {
      if (date < touched.first || date > touched.last) return []
      const from = date === touched.first ? minuteOf(time.start) : 0
      const end = date === touched.last ? minuteOf(time.end) : minutesInDay
      const to = end === 0 && date === touched.last && time.end > time.start ? minutesInDay : end
      return [
        {
          brick,
          key: `${brickKey(brick)}#${date}`,
          day,
          from: Math.min(from, minutesInDay - shortest),
          to: Math.max(to, from + shortest),
          lane: 0,
          lanes: 1,
          continuesBefore: date > touched.first,
          continuesAfter: date < touched.last,
        },
      ]
    })
  })
  return days.flatMap((_, day) => withLanes(pieces.filter((piece) => piece.day === day)))
}

/** What has hours, day by day; over midnight it is in both. */
export function timedByDay(bricks: readonly Brick[], days: readonly string[], zone: string): Brick[][] {
  const byDay = new Map(days.map((day): [string, Brick[]] => [day, []]))
  for (const brick of bricks) {
    const time = timeOf(brick, zone)
    if (isLong(time)) continue
    const { first, last } = daysOf(time)
    byDay.get(first)?.push(brick)
    if (last !== first) byDay.get(last)?.push(brick)
  }
  return [...byDay.values()]
}

/** Gives the pieces of one day their lanes: a cluster is as wide as its densest moment. */
function withLanes(pieces: Piece[]): Piece[] {
  const sorted = pieces.toSorted((a, b) => a.from - b.from || b.to - a.to || a.key.localeCompare(b.key))
  const laid: Piece[] = []
  let cluster: Piece[] = []
  let ends: number[] = []
  const close = () => {
    for (const piece of cluster) laid.push({ ...piece, lanes: ends.length })
    cluster = []
    ends = []
  }
  for (const piece of sorted) {
    if (cluster.length > 0 && ends.every((end) => end <= piece.from)) close()
    const free = ends.findIndex((end) => end <= piece.from)
    const lane = free < 0 ? ends.length : free
    ends[lane] = piece.to
    cluster.push({ ...piece, lane })
  }
  close()
  return laid
}

/** Lays bricks that take whole days as bars, each in the first lane that is free for all of its days. */
export function barsOf(bricks: readonly Brick[], days: readonly string[], zone: string): Bar[] {
  const [start, end] = [days[0], days.at(-1)]
  if (!start || !end) return []
  const bars = bricks.flatMap((brick): Bar[] => {
    const time = timeOf(brick, zone)
    if (!isLong(time)) return []
    const { first, last } = daysOf(time)
    if (last < start || first > end) return []
    return [
      {
        brick,
        key: brickKey(brick),
        first: Math.max(0, daysBetween(start, first)),
        last: Math.min(days.length - 1, daysBetween(start, last)),
        lane: 0,
        continuesBefore: first < start,
        continuesAfter: last > end,
      },
    ]
  })
  const taken: number[] = []
  return bars
    .toSorted((a, b) => a.first - b.first || b.last - a.last || a.key.localeCompare(b.key))
    .map((bar) => {
      const free = taken.findIndex((until) => until < bar.first)
      const lane = free < 0 ? taken.length : free
      taken[lane] = bar.last
      return { ...bar, lane }
    })
}
