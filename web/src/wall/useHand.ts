import { type MouseEvent, type PointerEvent, useEffect, useRef, useState } from 'react'
import { type Brick, brickKey, type EventBrick, type Time } from '../model/bricks'
import {
  daysBetween,
  minuteOf,
  moved,
  snap,
  startedAt,
  step,
  stretchedTo,
  stretchOfDay,
  wholeDays,
} from '../model/times'

/** Where a pointer is on the wall. */
export interface Place {
  day: string
  /** The minute of the day; null where the wall has no hours, or in the row of whole days. */
  minute: number | null
  /** The lane or row, by its key. */
  lane: string
}

/** What is in the hand: a brick in its new place, or one that is being drawn. */
export interface Ghost {
  brick: EventBrick | null
  time: Time
  lane: string
  copy: boolean
}

type Grip =
  | { kind: 'make'; place: Place }
  | { kind: 'move'; brick: EventBrick; place: Place }
  | { kind: 'stretch'; brick: EventBrick; edge: 'first' | 'last' }

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
  const grip = useRef<{ grip: Grip; x: number; y: number; far: boolean } | null>(null)
  const wasFar = useRef(false)
  const hold = useRef<ReturnType<typeof setTimeout> | null>(null)

  const timeFor = (held: Grip, place: Place): Time => {
    switch (held.kind) {
      case 'make':
        return held.place.minute === null || place.minute === null
          ? wholeDays(held.place.day, place.day)
          : stretchOfDay(
              held.place.day,
              Math.floor(held.place.minute / step) * step,
              snap(place.minute),
              zone,
            )
      case 'move': {
        const days = daysBetween(held.place.day, place.day)
        return held.place.minute === null || place.minute === null
          ? moved(held.brick.time, days, 0)
          : moved(held.brick.time, days, snap(place.minute - held.place.minute))
      }
      case 'stretch': {
        const minute = place.minute === null ? null : snap(place.minute)
        const { time } = held.brick
        return held.edge === 'first'
          ? startedAt(time, place.day, minute ?? (time.form === 'days' ? 0 : minuteOf(time.start)))
          : stretchedTo(time, place.day, minute ?? (time.form === 'days' ? 0 : minuteOf(time.end)))
      }
    }
  }

  const gripAt = (target: Element, place: Place, x: number, y: number): Grip | null => {
    const brickAt = target.closest<HTMLElement>('[data-brick]')
    const brick = brickAt ? find(brickAt.getAttribute('data-brick') ?? '') : undefined
    if (!brickAt || !brick) return target.closest('button, a, input') ? null : { kind: 'make', place }
    // The band of a day of very many dates is none of them, and is changed on the desk.
    if (brick.form !== 'event' || !brick.mayChange || brick.dates > 1) return null
    const edge = edgeAt(brickAt, x, y)
    return edge ? { kind: 'stretch', brick, edge: edge.end } : { kind: 'move', brick, place }
  }

  const onPointerDown = (event: PointerEvent<HTMLElement>) => {
    if (event.button !== 0 || !(event.target instanceof Element)) return
    const place = placeAt(event.clientX, event.clientY)
    const held = place && gripAt(event.target, place, event.clientX, event.clientY)
    if (!held) return
    const take = { grip: held, x: event.clientX, y: event.clientY, far: false }
    if (event.pointerType !== 'touch') {
      grip.current = take
      event.currentTarget.setPointerCapture(event.pointerId)
      return
    }
    // A finger scrolls at once and takes up a brick when it rests on it.
    if (!('brick' in held)) return
    const box = event.currentTarget
    const id = event.pointerId
    hold.current = setTimeout(() => {
      grip.current = { ...take, far: true }
      box.setPointerCapture(id)
      setGhost({ brick: held.brick, time: held.brick.time, lane: place.lane, copy: false })
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
      time: timeFor(now.grip, place),
      lane: now.grip.kind === 'move' ? place.lane : laneOf(now.grip, place),
      copy: event.ctrlKey || event.altKey || event.metaKey,
    })
  }

  const onPointerUp = (event: PointerEvent<HTMLElement>) => {
    const now = grip.current
    const copy = event.ctrlKey || event.altKey || event.metaKey
    const inHand = ghost
    wasFar.current = now?.far === true
    letGo()
    if (!now) return
    if (!now.far) {
      if (!('brick' in now.grip)) return
      if (event.shiftKey || copy) onMark(now.grip.brick)
      else onOpen(now.grip.brick)
      return
    }
    const place = placeAt(event.clientX, event.clientY)
    if (!place) return
    const time = timeFor(now.grip, place)
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

  const onClick = (event: MouseEvent<HTMLElement>) => {
    const far = wasFar.current
    wasFar.current = false
    if (far || event.detail !== 1) return
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
    handlers: { onPointerDown, onPointerMove, onPointerUp, onPointerCancel: letGo, onClick, onDoubleClick },
  }
}

/** How near to an edge the pointer takes hold of it, in pixels. */
const nearPx = 6

/** The end of a brick that a point of the screen is at, where it can be lengthened there (data-ends). */
function edgeAt(brick: HTMLElement, x: number, y: number) {
  const box = brick.getBoundingClientRect()
  const away = { top: y - box.top, left: x - box.left, bottom: box.bottom - y, right: box.right - x }
  const ends = brick.dataset.ends?.split(' ') ?? []
  for (const [end, edges] of [
    ['last', ['bottom', 'right']],
    ['first', ['top', 'left']],
  ] as const)
    for (const edge of edges)
      if (ends.includes(edge) && away[edge] <= nearPx)
        return { end, way: edge === 'top' || edge === 'bottom' ? 'down' : 'across' }
  return null
}

/** Says by the pointer's form that an edge can be taken hold of. */
function showEdge({ target, clientX, clientY }: { target: EventTarget; clientX: number; clientY: number }) {
  const brick = target instanceof Element ? target.closest<HTMLElement>('[data-ends]') : null
  if (!brick) return
  const way = edgeAt(brick, clientX, clientY)?.way
  if (way) brick.dataset.edge = way
  else delete brick.dataset.edge
}

const laneOf = (grip: Grip, place: Place): string => (grip.kind === 'make' ? grip.place.lane : place.lane)
