import type { CSSProperties, KeyboardEvent } from 'react'
import { BrickFace, brickName } from './BrickFace'
import { type Brick, brickKey, type Layer } from './bricks'

interface BrickButtonProps {
  brick: Brick
  layer: Layer
  flat: boolean
  style: CSSProperties
  past: boolean
  chosen: boolean
  /** In the hand: what is left behind is pale, what is carried is raised. */
  hand?: 'left' | 'carried'
  edge?: 'bottom' | 'right'
  onOpen?: (brick: Brick) => void
  onKeyDown?: (event: KeyboardEvent, brick: Brick) => void
}

/** One brick. Pointers are dealt with by the wall around it (useHand), keys here. */
export function BrickButton({
  brick,
  layer,
  flat,
  style,
  past,
  chosen,
  hand,
  edge,
  onOpen,
  onKeyDown,
}: BrickButtonProps) {
  const tentative = brick.kind === 'busy' ? brick.tentative : brick.showAs === 'tentative'
  const mayChange = brick.kind === 'event' && brick.mayChange
  return (
    <button
      type="button"
      data-brick={hand === 'carried' ? undefined : brickKey(brick)}
      data-hue={layer.hue}
      data-past={past}
      data-tentative={tentative}
      data-busy={brick.kind === 'busy'}
      data-chosen={chosen}
      data-hand={hand}
      data-free={brick.kind === 'event' && brick.showAs === 'free'}
      style={style}
      aria-label={brickName(brick, layer)}
      // A press arrives by useHand; only keys (detail 0) and fingers, which it leaves alone, arrive here.
      onClick={(event) => {
        const touch = event.nativeEvent instanceof PointerEvent && event.nativeEvent.pointerType === 'touch'
        if (event.detail === 0 || touch || !mayChange) onOpen?.(brick)
      }}
      onKeyDown={(event) => onKeyDown?.(event, brick)}
      className="brick absolute overflow-hidden rounded-brick text-left text-[12px]"
    >
      <BrickFace brick={brick} layer={layer} flat={flat} />
      {mayChange && edge === 'bottom' && (
        <span data-edge="true" className="absolute inset-x-0 bottom-0 h-1.5 cursor-ns-resize" />
      )}
      {mayChange && edge === 'right' && (
        <span data-edge="true" className="absolute inset-y-0 right-0 w-1.5 cursor-ew-resize" />
      )}
    </button>
  )
}
