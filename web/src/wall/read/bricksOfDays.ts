import { type Brick, timeOf } from '../../model/bricks'
import { addDays, daysOf } from '../../model/times'

/** What lies on each of some days that follow each other, ranges on all of theirs; what ends at midnight is not on the day after. */
export function bricksOfDays(
  bricks: readonly Brick[],
  days: readonly string[],
  zone: string,
): ReadonlyMap<string, readonly Brick[]> {
  const first = days[0] ?? ''
  const byDay = new Map<string, Brick[]>(days.map((day) => [day, []]))
  for (const brick of bricks) {
    const on = daysOf(timeOf(brick, zone))
    let day = first
    if (on.first > first) day = on.first
    for (let here = byDay.get(day); here && day <= on.last; here = byDay.get(day)) {
      here.push(brick)
      day = addDays(day, 1)
    }
  }
  return byDay
}
