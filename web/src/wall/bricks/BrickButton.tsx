import { type KeyboardEvent, memo } from 'react'
import { type Brick, brickKey, type Layer } from '../../model/bricks'
import { BrickFace } from './BrickFace'
import type { BrickFate } from './fate'

/** How a brick stands on the wall at the moment, beside what it is. */
export interface BrickState {
  past: boolean
  /** Open on the desk. */
  chosen: boolean
  /** Among those that a key or the next act is meant for. */
  marked: boolean
  /** Whether it clashes with another: hard, or only perhaps. */
  clash: boolean | undefined
  /** Whose it is, where the title does not say. */
  whose: string | undefined
  /** Found by what somebody looks for; others step back while they do. */
  found: boolean | undefined
  /** What would become of it, while one looks at a moment. */
  fate: BrickFate | undefined
}

export interface BrickActs {
  onOpen: (brick: Brick) => void
  onMark: (brick: Brick) => void
  onBrickKey: (event: KeyboardEvent, brick: Brick) => void
}

/**
 * How little room a brick has for words: small letters; no hour, since where it lies tells it; so little that the words
 * run down it as on the spine of a book; or none, and only its colour is seen.
 */
export type Room = 'small' | 'tight' | 'spine' | 'bare' | undefined

/** Where a brick lies; what is a number is in pixels. */
export interface BrickPlace {
  left: string
  width: string
  top: number
  height?: number
}

interface BrickButtonProps {
  brick: Brick
  layer: Layer
  flat: boolean
  state: BrickState
  acts: BrickActs
  /** Where it lies; in the flow of its cell without it. */
  style?: BrickPlace
  /** In the hand: what is left behind is pale, what is carried is raised. */
  hand?: 'left' | 'carried'
  /** Where its own copy in the hand lies over it: there for the keys, not for the eye. */
  under?: boolean
  /** Edges by which it can be lengthened. */
  edges?: { first?: 'top' | 'left'; last?: 'bottom' | 'right' }
  /** How little room there is beside its neighbours. */
  room?: Room
  /** Whether its words have room for sure, so that nothing need be clipped. */
  fits?: boolean
}

/** The edges of what begins and ends in view: only those can be taken hold of. */
export const endsOf = <First extends 'top' | 'left', Last extends 'bottom' | 'right'>(
  part: { continuesBefore: boolean; continuesAfter: boolean },
  first: First,
  last: Last,
) => ({
  first: part.continuesBefore ? undefined : first,
  last: part.continuesAfter ? undefined : last,
})

/**
 * One brick. Pointers are dealt with by the wall around it (useHand), keys here. Among thousands only those are drawn
 * anew that have changed; and since the browser goes through all of them whenever the pointer moves, a brick is as few
 * boxes as can be: nothing in it is placed or clipped by itself.
 */
export const BrickButton = memo(function BrickButton({
  brick,
  layer,
  flat,
  state,
  acts,
  style,
  hand,
  under,
  edges,
  room,
  fits,
}: BrickButtonProps) {
  const event = brick.form === 'event' ? brick : null
  const tentative = brick.form === 'busy' ? brick.tentative : brick.showAs === 'tentative'
  const mayChange = event?.mayChange === true
  const tint = layer.kinds.find((kind) => kind.name === event?.kind)?.tint
  return (
    <button
      type="button"
      data-brick={hand === 'carried' ? undefined : brickKey(brick)}
      data-hue={layer.hue}
      data-tint={tint}
      data-past={state.past}
      data-tentative={tentative}
      data-busy={brick.form === 'busy'}
      data-chosen={state.chosen}
      data-marked={state.marked}
      data-clash={state.clash === undefined ? undefined : state.clash ? 'hard' : 'soft'}
      data-found={state.found}
      data-fate={state.fate}
      data-hand={hand}
      data-free={event?.showAs === 'free'}
      data-to-be-set={event?.time.form === 'days' && event.time.toBeSet}
      data-ends={(mayChange && [edges?.first, edges?.last].filter(Boolean).join(' ')) || undefined}
      data-room={room}
      data-fits={fits || undefined}
      style={style}
      // What is carried is said as it goes; the one it was taken from has the keys.
      tabIndex={hand === 'carried' ? -1 : undefined}
      aria-hidden={hand === 'carried' || undefined}
      aria-pressed={state.marked || undefined}
      title={hint(brick)}
      // A press arrives by useHand; only keys (detail 0) and fingers, which it leaves alone, arrive here.
      onClick={(press) => {
        const touch = press.nativeEvent instanceof PointerEvent && press.nativeEvent.pointerType === 'touch'
        if (press.detail === 0 || touch || !mayChange) acts.onOpen(brick)
      }}
      onKeyDown={(press) => {
        if (press.key === ' ') {
          press.preventDefault()
          acts.onMark(brick)
        } else acts.onBrickKey(press, brick)
      }}
      className={`brick ${under ? 'sr-only' : ''} rounded-brick text-left text-[12px] ${style ? 'absolute' : `brick-line block w-full ${flat ? 'h-4.75' : ''}`}`}
    >
      <BrickFace
        brick={brick}
        layer={layer}
        flat={flat}
        whose={state.whose}
        clash={state.clash}
        fate={state.fate}
      />
    </button>
  )
}, areAlike)

/** Field by field, since it is asked for thousands of bricks at a time. */
function areAlike(a: BrickButtonProps, b: BrickButtonProps): boolean {
  return (
    a.brick === b.brick &&
    a.layer === b.layer &&
    a.flat === b.flat &&
    a.acts === b.acts &&
    a.hand === b.hand &&
    a.under === b.under &&
    a.room === b.room &&
    a.fits === b.fits &&
    a.edges?.first === b.edges?.first &&
    a.edges?.last === b.edges?.last &&
    isSameState(a.state, b.state) &&
    isSamePlace(a.style, b.style)
  )
}

const isSameState = (a: BrickState, b: BrickState): boolean =>
  a.past === b.past &&
  a.chosen === b.chosen &&
  a.marked === b.marked &&
  a.clash === b.clash &&
  a.whose === b.whose &&
  a.found === b.found &&
  a.fate === b.fate

const isSamePlace = (a: BrickPlace | undefined, b: BrickPlace | undefined): boolean =>
  a?.left === b?.left && a?.width === b?.width && a?.top === b?.top && a?.height === b?.height

/** What a narrow brick may have no room for. */
const hint = (brick: Brick): string | undefined =>
  brick.form === 'busy' ? undefined : [brick.title, brick.place].filter(Boolean).join(' · ') || undefined
