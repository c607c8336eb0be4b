import { type Brick, brickKey, timeOf } from '../../model/bricks'
import { daysOf } from '../../model/times'

/**
 * Bricks by the day they stand on, in order: a range stands on the first of its days in view. What ended before is left out:
 * while a period is fetched, what was there before it still shows, and is not to stand on its first day.
 */
export function bricksByDay(
  bricks: readonly Brick[],
  first: string,
  zone: string,
): ReadonlyMap<string, readonly Brick[]> {
  const sorted = bricks
    .filter((brick) => daysOf(timeOf(brick, zone)).last >= first)
    .toSorted(
      (a, b) => sortKey(a, zone).localeCompare(sortKey(b, zone)) || brickKey(a).localeCompare(brickKey(b)),
    )
  const byDay = new Map<string, Brick[]>()
  for (const brick of sorted) {
    const start = daysOf(timeOf(brick, zone)).first
    const day = start < first ? first : start
    byDay.set(day, [...(byDay.get(day) ?? []), brick])
  }
  return byDay
}

const sortKey = (brick: Brick, zone: string): string => {
  const time = timeOf(brick, zone)
  return time.form === 'days' ? time.first : time.start
}
