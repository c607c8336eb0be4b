import type { Brick, EventBrick, Time } from '../../model/bricks'
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
} from '../../model/times'

/** Where a pointer is on the wall. */
export interface Place {
  day: string
  /** The minute of the day; null where the wall has no hours, or in the row of whole days. */
  minute: number | null
  /** The lane or row, by its key. */
  lane: string
}

/** What the pointer has hold of, and where it took it. */
export type Grip =
  | { kind: 'make'; place: Place }
  | { kind: 'move'; brick: EventBrick; place: Place }
  | { kind: 'stretch'; brick: EventBrick; edge: 'first' | 'last' }

/** The time that comes of holding it there. */
export function timeFor(held: Grip, place: Place, zone: string): Time {
  switch (held.kind) {
    case 'make':
      return held.place.minute === null || place.minute === null
        ? wholeDays(held.place.day, place.day)
        : stretchOfDay(held.place.day, Math.floor(held.place.minute / step) * step, snap(place.minute), zone)
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

/** What is taken hold of at a point of the screen; nothing where it is a button, or not to be moved. */
export function gripAt(
  target: Element,
  place: Place,
  { x, y }: { x: number; y: number },
  find: (key: string) => Brick | undefined,
  isFinger = false,
): Grip | null {
  const brickAt = target.closest<HTMLElement>('[data-brick]')
  const brick = brickAt ? find(brickAt.getAttribute('data-brick') ?? '') : undefined
  if (!brickAt || !brick) return target.closest('button, a, input') ? null : { kind: 'make', place }
  // The band of a day of very many dates is none of them, and is changed on the desk.
  if (brick.form !== 'event' || !brick.mayChange || brick.dates > 1) return null
  const edge = edgeAt(brickAt, x, y, isFinger ? nearFingerPx : nearPx)
  return edge ? { kind: 'stretch', brick, edge: edge.end } : { kind: 'move', brick, place }
}

/** How near to an edge the pointer takes hold of it, in pixels. */
const nearPx = 6

/** The same for a finger; a brick has a middle left to be moved by. */
const nearFingerPx = 14

/** The end of a brick that a point of the screen is at, where it can be lengthened there (data-ends). */
function edgeAt(brick: HTMLElement, x: number, y: number, near = nearPx) {
  const box = brick.getBoundingClientRect()
  const away = { top: y - box.top, left: x - box.left, bottom: box.bottom - y, right: box.right - x }
  const ends = brick.dataset.ends?.split(' ') ?? []
  for (const [end, edges] of [
    ['last', ['bottom', 'right']],
    ['first', ['top', 'left']],
  ] as const)
    for (const edge of edges) {
      const isDown = edge === 'top' || edge === 'bottom'
      const reach = Math.min(near, (isDown ? box.height : box.width) / 3)
      if (ends.includes(edge) && away[edge] <= reach) return { end, way: isDown ? 'down' : 'across' }
    }
  return null
}

/** Says by the pointer's form that an edge can be taken hold of. */
export function showEdge({
  target,
  clientX,
  clientY,
}: {
  target: EventTarget
  clientX: number
  clientY: number
}) {
  const brick = target instanceof Element ? target.closest<HTMLElement>('[data-ends]') : null
  if (!brick) return
  const way = edgeAt(brick, clientX, clientY)?.way
  if (way) brick.dataset.edge = way
  else delete brick.dataset.edge
}

/** The lane something is held over. */
export const laneOf = (grip: Grip, place: Place): string =>
  grip.kind === 'make' ? grip.place.lane : place.lane
