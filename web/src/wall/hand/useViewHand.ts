import { useMemo } from 'react'
import { brickKey, type EventBrick } from '../../model/bricks'
import { useReader } from '../../reader/person'
import { useLeftBehind } from '../useLeftBehind'
import type { ViewProps } from '../viewProps'
import type { Place } from './grip'
import { useHand } from './useHand'

/**
 * The hand on a view, which says where a point of the screen lies on it; and what would lie there: what is in the hand, or
 * is being written or carried by keys.
 */
export function useViewHand(
  { bricks, carried: draft, draftLane, hand: acts, asNew }: ViewProps,
  placeAt: (x: number, y: number) => Place | null,
) {
  const { zone, preferences } = useReader().person
  const byKey = useMemo(() => new Map(bricks.map((brick) => [brickKey(brick), brick])), [bricks])
  const hand = useHand({
    zone,
    length: preferences.eventMinutes,
    placeAt,
    find: (key) => byKey.get(key),
    bricks,
    ...acts,
  })
  const isInHand = hand.ghost !== null
  const carried: EventBrick | null = hand.ghost ? asNew(hand.ghost) : draft
  const replaced = hand.held ?? (isInHand ? null : draft && brickKey(draft))
  useLeftBehind(replaced)
  return {
    handlers: hand.handlers,
    carried,
    /** The lane or row it would lie in. */
    carriedLane: hand.ghost?.lane ?? draftLane,
    /** Whether the pointer has it, and not the desk or the keys. */
    isInHand,
    /** The key of the brick that it stands for. */
    replaced,
  }
}
