import type { Gap } from '../model/availabilityQueries'
import type { Brick, EventBrick, Layer, Time } from '../model/bricks'
import type { BrickActs, BrickState } from './bricks/BrickButton'
import type { Place } from './hand/grip'
import type { Carried, Ghost } from './hand/useHand'

/** What every view of the wall is given: what lies on it, and what can be done with it. */
export interface ViewProps {
  days: readonly string[]
  /** The local time that is now, on the wall's clock. */
  now: string
  bricks: readonly Brick[]
  layers: ReadonlyMap<string, Layer>
  /** All that a brick is drawn with; undefined where its layer is not shown. */
  face: (brick: Brick) => { brick: Brick; layer: Layer; state: BrickState; acts: BrickActs } | undefined
  /** A brick that is being written on the desk or carried by keys, drawn as it would lie. */
  carried: EventBrick | null
  /** The lane it would lie in. */
  draftLane: string
  hand: {
    onOpen: (brick: Brick) => void
    onMark: (brick: Brick) => void
    onMake: (time: Time, lane: string) => void
    onCarry: (carried: Carried) => boolean
    /** An empty place is pressed. */
    onPoint: (place: Place) => void
  }
  /** Gaps that were asked for: lit under what lies on the wall. */
  lit: readonly Gap[]
  /** The time that is asked about. */
  pointed: { start: string; end: string } | null
  /** A gap is chosen on the wall; null where they are only to be seen. */
  onLit: ((gap: Gap) => void) | null
  /** What is in the hand as a brick: one that moves, or a new one in the layer it would go to. */
  asNew: (ghost: Ghost) => EventBrick | null
  /** What is on the desk beside the wall, empty where that is nothing of it; null where there is no desk or it lies over all. */
  beside: string | null
  /** Makes something on a day, in a lane or row, by key. */
  onPlace: (day: string, lane: string) => void
}
