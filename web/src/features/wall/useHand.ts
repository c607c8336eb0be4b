import { type PointerEvent, type RefObject, useRef, useState } from 'react'
import { type Brick, brickKey, type EventBrick, type Time } from './bricks'
import { minutesInDay, moved, snap, step, stretchedTo, stretchOfDay, wholeDays } from './times'

/** What is in the hand: a brick in its new place, or one that is being drawn. */
export interface Ghost {
  brick: EventBrick | null
  time: Time
}

type Grip =
  | { kind: 'make'; day: number; minute: number }
  | { kind: 'makeDays'; day: number }
  | { kind: 'move'; brick: EventBrick; day: number; minute: number }
  | { kind: 'stretch'; brick: EventBrick }

interface Place {
  day: number
  minute: number
}

interface HandOptions {
  days: readonly string[]
  zone: string
  /** The seven columns of hours, midnight to midnight. */
  hours: RefObject<HTMLElement | null>
  find: (key: string) => Brick | undefined
  onOpen: (brick: Brick) => void
  onMake: (time: Time) => void
  onChange: (brick: EventBrick, time: Time) => void
}

/** Less than this is a press, not a drag. */
const tremble = 4

/** The mouse on the wall: drawing, moving and lengthening bricks, and pressing them. Fingers scroll and press. */
export function useHand({ days, zone, hours, find, onOpen, onMake, onChange }: HandOptions) {
  const [ghost, setGhost] = useState<Ghost | null>(null)
  const grip = useRef<{ grip: Grip; x: number; y: number; far: boolean } | null>(null)

  const placeOf = (event: PointerEvent): Place => {
    const box = hours.current?.getBoundingClientRect()
    if (!box) return { day: 0, minute: 0 }
    const day = Math.floor(((event.clientX - box.left) / box.width) * days.length)
    const minute = ((event.clientY - box.top) / box.height) * minutesInDay
    return {
      day: Math.min(days.length - 1, Math.max(0, day)),
      minute: Math.min(minutesInDay, Math.max(0, minute)),
    }
  }

  const timeFor = (held: Grip, place: Place): Time => {
    const day = days[place.day] ?? ''
    switch (held.kind) {
      case 'make':
        return stretchOfDay(
          days[held.day] ?? '',
          Math.floor(held.minute / step) * step,
          snap(place.minute),
          zone,
        )
      case 'makeDays':
        return wholeDays(days[held.day] ?? '', day)
      case 'move':
        return moved(held.brick.time, place.day - held.day, snap(place.minute - held.minute))
      case 'stretch':
        return stretchedTo(held.brick.time, day, snap(place.minute))
    }
  }

  const onPointerDown = (event: PointerEvent<HTMLElement>) => {
    if (event.button !== 0 || event.pointerType === 'touch' || !(event.target instanceof Element)) return
    const place = placeOf(event)
    const brickAt = event.target.closest('[data-brick]')
    const brick = brickAt ? find(brickAt.getAttribute('data-brick') ?? '') : undefined
    const inDays = event.target.closest('[data-all-day]') !== null
    let held: Grip | null = null
    if (brick) {
      if (brick.kind === 'event' && brick.mayChange)
        held = event.target.closest('[data-edge]')
          ? { kind: 'stretch', brick }
          : { kind: 'move', brick, ...place }
    } else if (!event.target.closest('button')) {
      held = inDays ? { kind: 'makeDays', day: place.day } : { kind: 'make', ...place }
    }
    if (!held) return
    grip.current = { grip: held, x: event.clientX, y: event.clientY, far: false }
    event.currentTarget.setPointerCapture(event.pointerId)
  }

  const onPointerMove = (event: PointerEvent<HTMLElement>) => {
    const now = grip.current
    if (!now) return
    now.far ||= Math.hypot(event.clientX - now.x, event.clientY - now.y) > tremble
    if (!now.far) return
    const held = now.grip
    setGhost({ brick: 'brick' in held ? held.brick : null, time: timeFor(held, placeOf(event)) })
  }

  const onPointerUp = (event: PointerEvent<HTMLElement>) => {
    const now = grip.current
    letGo()
    if (!now) return
    if (!now.far) {
      if ('brick' in now.grip) onOpen(now.grip.brick)
      return
    }
    const time = timeFor(now.grip, placeOf(event))
    if ('brick' in now.grip) onChange(now.grip.brick, time)
    else onMake(time)
  }

  const letGo = () => {
    grip.current = null
    setGhost(null)
  }

  return {
    ghost,
    letGo,
    held: ghost?.brick ? brickKey(ghost.brick) : null,
    handlers: { onPointerDown, onPointerMove, onPointerUp, onPointerCancel: letGo },
  }
}
