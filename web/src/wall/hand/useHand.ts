import { type MouseEvent, type PointerEvent, useEffect, useRef, useState } from 'react'
import { type Brick, brickKey, type EventBrick, type Time } from '../../model/bricks'
import { stretchOfDay, wholeDays } from '../../model/times'
import { type Grip, gripAt, laneOf, type Place, showEdge, timeFor } from './grip'

/** What is in the hand: a brick in its new place, or one that is being drawn. */
export interface Ghost {
  brick: EventBrick | null
  time: Time
  lane: string
  copy: boolean
}

/** A brick that was put somewhere else. */
export interface Carried {
  brick: EventBrick
  time: Time
  from: string
  to: string
  copy: boolean
}

interface HandOptions {
  zone: string
  /** How many minutes long something new is at first. */
  length: number
  /** Where a point of the screen lies on the wall; null outside of it. */
  placeAt: (x: number, y: number) => Place | null
  find: (key: string) => Brick | undefined
  /** What lies on the wall. */
  bricks: readonly Brick[]
  onOpen: (brick: Brick) => void
  onMark: (brick: Brick) => void
  /** Nothing is drawn where a press makes what is new. */
  onMake: (time: Time, lane: string) => void
  /** An empty place is pressed, by mouse or finger. */
  onPoint: (place: Place) => void
  /** Says whether it is shown where it was put as soon as it can be drawn. */
  onCarry: (carried: Carried) => boolean
}

/** Less than this is a press, not a drag. */
const tremble = 4

/** Where something ends that is drawn by resting on an empty place; null where the wall has no hours. */
const drawnTo = ({ minute }: Place, length: number) =>
  minute === null ? null : Math.min(1440, minute + length)

/** How long a finger rests before it takes a brick up; until then it scrolls. */
const holdMs = 350

/** Mouse and finger on the wall: drawing, moving, lengthening and copying bricks, and pressing them. */
export function useHand({
  zone,
  length,
  placeAt,
  find,
  bricks,
  onOpen,
  onMark,
  onMake,
  onPoint,
  onCarry,
}: HandOptions) {
  const [taken, setGhost] = useState<(Ghost & { putAmong?: readonly Brick[] }) | null>(null)
  // What was put down stays in sight until the wall is drawn with it.
  const ghost = taken?.putAmong && taken.putAmong !== bricks ? null : taken
  const grip = useRef<{ grip: Grip; x: number; y: number; far: boolean; rested?: boolean } | null>(null)
  const wasFar = useRef(false)
  const hold = useRef<ReturnType<typeof setTimeout> | null>(null)

  const onPointerDown = (event: PointerEvent<HTMLElement>) => {
    wasFar.current = false
    if (event.button !== 0 || !(event.target instanceof Element)) return
    const place = placeAt(event.clientX, event.clientY)
    const held =
      place &&
      gripAt(event.target, place, { x: event.clientX, y: event.clientY }, find, event.pointerType === 'touch')
    if (!held) return
    const take = { grip: held, x: event.clientX, y: event.clientY, far: false }
    if (event.pointerType !== 'touch') {
      grip.current = take
      event.currentTarget.setPointerCapture(event.pointerId)
      return
    }
    // A finger scrolls at once; where it rests it takes up what is there, or begins to draw.
    const box = event.currentTarget
    const id = event.pointerId
    hold.current = setTimeout(() => {
      grip.current = { ...take, rested: true }
      box.setPointerCapture(id)
      navigator.vibrate?.(10)
      setGhost({
        brick: 'brick' in held ? held.brick : null,
        time:
          'brick' in held
            ? held.brick.time
            : timeFor(held, { ...place, minute: drawnTo(place, length) }, zone),
        lane: held.kind === 'move' ? place.lane : laneOf(held, place),
        copy: false,
      })
    }, holdMs)
  }

  const onPointerMove = (event: PointerEvent<HTMLElement>) => {
    const now = grip.current
    if (!now) {
      stopHold()
      showEdge(event)
      return
    }
    now.far ||= Math.hypot(event.clientX - now.x, event.clientY - now.y) > tremble
    const place = now.far ? placeAt(event.clientX, event.clientY) : null
    if (!place) return
    setGhost({
      brick: 'brick' in now.grip ? now.grip.brick : null,
      time: timeFor(now.grip, place, zone),
      lane: now.grip.kind === 'move' ? place.lane : laneOf(now.grip, place),
      copy: event.ctrlKey || event.altKey || event.metaKey,
    })
  }

  const onPointerUp = (event: PointerEvent<HTMLElement>) => {
    const now = grip.current
    const copy = event.ctrlKey || event.altKey || event.metaKey
    const inHand = ghost
    wasFar.current = now?.far === true || now?.rested === true
    letGo()
    if (!now) return
    if (!now.far) {
      // A finger that rested and went nowhere marks the brick, or makes something as long as what is new is.
      if (now.rested) {
        if ('brick' in now.grip) onMark(now.grip.brick)
        else if (inHand) onMake(inHand.time, now.grip.place.lane)
        return
      }
      if (!('brick' in now.grip)) return
      if (event.shiftKey || copy) onMark(now.grip.brick)
      else onOpen(now.grip.brick)
      return
    }
    const place = placeAt(event.clientX, event.clientY)
    if (!place) return
    const time = timeFor(now.grip, place, zone)
    if (now.grip.kind === 'make') onMake(time, now.grip.place.lane)
    else {
      const from = now.grip.kind === 'move' ? now.grip.place.lane : place.lane
      const to = now.grip.kind === 'move' ? place.lane : from
      if (onCarry({ brick: now.grip.brick, time, from, to, copy }) && inHand)
        setGhost({ ...inHand, time, putAmong: bricks })
    }
  }

  const onDoubleClick = (event: { clientX: number; clientY: number; target: EventTarget }) => {
    const place = placeAt(event.clientX, event.clientY)
    if (!place || !(event.target instanceof Element) || event.target.closest('[data-brick], button, a'))
      return
    onMake(
      place.minute === null
        ? wholeDays(place.day, place.day)
        : stretchOfDay(
            place.day,
            Math.floor(place.minute / 30) * 30,
            Math.floor(place.minute / 30) * 30 + length,
            zone,
          ),
      place.lane,
    )
  }

  // What was carried, marked or drawn was not pressed as well.
  const onClickCapture = (event: MouseEvent<HTMLElement>) => {
    if (wasFar.current) event.stopPropagation()
    wasFar.current = false
  }

  const onClick = (event: MouseEvent<HTMLElement>) => {
    if (event.detail !== 1) return
    if (!(event.target instanceof Element) || event.target.closest('[data-brick], button, a, input')) return
    const place = placeAt(event.clientX, event.clientY)
    if (place) onPoint(place)
  }

  const stopHold = () => {
    if (hold.current !== null) clearTimeout(hold.current)
    hold.current = null
  }

  const letGo = () => {
    stopHold()
    grip.current = null
    setGhost(null)
  }

  // While a finger carries something, the wall under it must not scroll. It has to listen before the finger comes down.
  useEffect(() => {
    const still = (event: TouchEvent) => {
      if (grip.current) event.preventDefault()
    }
    window.addEventListener('touchmove', still, { passive: false })
    return () => window.removeEventListener('touchmove', still)
  }, [])

  return {
    ghost,
    letGo,
    held: ghost?.brick && !ghost.copy ? brickKey(ghost.brick) : null,
    handlers: {
      onPointerDown,
      onPointerMove,
      onPointerUp,
      onPointerCancel: letGo,
      onClickCapture,
      onClick,
      onDoubleClick,
    },
  }
}
