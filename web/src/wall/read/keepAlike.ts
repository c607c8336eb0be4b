import type { Schema } from '../../api/client'
import { brickKey } from '../../model/bricks'

type WallBody = Schema['WallBody']

/**
 * A new wall with the old one's bricks wherever nothing in them has changed, so that only the others are drawn anew.
 * Told by identity first, since what one's own hand changes leaves all others as they are.
 */
export function keepAlike(before: unknown, after: unknown): unknown {
  if (before === after || !isWall(before) || !isWall(after)) return after
  const { bricks: old, clashes: struck, ...rest } = before
  const { bricks: next, clashes: strikes, ...others } = after
  const bricks = kept(old, next, brickKey)
  const clashes = isAlike(struck, strikes) ? struck : strikes
  return bricks === old && clashes === struck && isAlike(rest, others)
    ? before
    : { ...others, bricks, clashes }
}

const isWall = (value: unknown): value is WallBody =>
  typeof value === 'object' && value !== null && 'bricks' in value && 'clashes' in value

function kept<T>(before: T[], after: T[], keyOf: (one: T) => string): T[] {
  if (before === after) return before
  let byKey: Map<string, T> | null = null
  let isSame = before.length === after.length
  const result = after.map((one, index) => {
    const there = before[index]
    if (one === there) return one
    byKey ??= new Map(before.map((each) => [keyOf(each), each]))
    const old = byKey.get(keyOf(one))
    const same = old !== undefined && isAlike(old, one) ? old : one
    isSame &&= same === there
    return same
  })
  return isSame ? before : result
}

/** Whether two pieces of an answer say the same. Both come from JSON, whose fields keep their order. */
const isAlike = (a: unknown, b: unknown): boolean => a === b || JSON.stringify(a) === JSON.stringify(b)
