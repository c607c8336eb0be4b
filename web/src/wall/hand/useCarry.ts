import { type KeyboardEvent, useState } from 'react'
import { type Brick, brickKey, type EventBrick, type Time } from '../../model/bricks'
import { addDays, dateOf, localAt, minuteOf, moved, step, stretchedTo } from '../../model/times'
import { whenText } from '../../model/whenText'
import { say } from '../../ui/say'

export interface Carry {
  brick: EventBrick
  time: Time
  /** The row it was taken up in and the one it is in by now; empty where a view has no rows. */
  from: string
  to: string
}

/**
 * Moving a brick by keys: M takes it up, arrows move it, Shift with arrows lengthens it, Enter puts it down, Ctrl with Enter a
 * copy of it, Esc lets it be. On the roster up and down hand it to another row.
 */
export function useCarry(
  onPut: (carry: Carry, copy: boolean) => void,
  onRefused: (sentence: string) => void,
) {
  const [carry, setCarry] = useState<Carry | null>(null)

  const takeUp = (brick: Brick, at: Element | null) => {
    if (brick.form === 'event' && brick.mayChange && brick.dates === 1) {
      const row = rowOf(at)
      setCarry({ brick, time: brick.time, from: row, to: row })
      say(
        row === ''
          ? 'Taken up. Arrows move it, Shift with arrows lengthens it, Enter puts it down, Escape lets it be.'
          : 'Taken up. Left and right move it, up and down hand it to another row, Enter puts it down, Escape lets it be.',
      )
    } else onRefused('This event can be read, but not moved, with your step on its calendar.')
  }
  const letBe = () => {
    setCarry(null)
    say('It stays where it was.')
  }
  const move = (next: Carry) => {
    setCarry(next)
    const row = rowsShown().find((one) => one.key === next.to)
    say(row && next.to !== next.from ? `${row.name}, ${whenText(next.time)}` : whenText(next.time))
  }

  const onBrickKey = (event: KeyboardEvent, brick: Brick) => {
    const key = event.key.length === 1 ? event.key.toLowerCase() : event.key
    if (!carry) {
      if (key !== 'm' || event.ctrlKey || event.metaKey || event.altKey) return
      event.preventDefault()
      takeUp(brick, event.currentTarget)
      return
    }
    if (brickKey(carry.brick) !== brickKey(brick)) return
    const next = carriedBy(carry, key, event.shiftKey)
    if (next) move(next)
    else if (key === 'Enter') {
      onPut(carry, event.ctrlKey || event.metaKey || event.altKey)
      setCarry(null)
    } else if (key === 'Escape' || key === 'Tab') letBe()
    else return
    if (key !== 'Tab') {
      event.preventDefault()
      event.stopPropagation()
    }
  }

  return { carry, takeUp, onBrickKey }
}

/** Where an arrow carries it; null for every other key. */
function carriedBy(carry: Carry, key: string, isLonger: boolean): Carry | null {
  const down = key === 'ArrowDown' ? 1 : key === 'ArrowUp' ? -1 : 0
  if (down !== 0 && carry.from !== '' && !isLonger) {
    const rows = rowsShown()
    const to = rows[rows.findIndex((one) => one.key === carry.to) + down]?.key ?? carry.to
    return { ...carry, to }
  }
  const time = isLonger ? longer(carry.time, key) : elsewhere(carry.time, key)
  return time && { ...carry, time }
}

/** The row of the roster something is in; empty outside of it. */
const rowOf = (at: Element | null): string =>
  at?.closest('[role="row"]')?.querySelector<HTMLElement>('[data-row]')?.dataset.row ?? ''

/** The rows of the roster as they stand, from the top. */
const rowsShown = () =>
  [...document.querySelectorAll('[role="grid"] [role="row"]')].flatMap((row) => {
    const key = rowOf(row)
    return key === ''
      ? []
      : [{ key, name: row.querySelector('[role="rowheader"] span span')?.textContent ?? '' }]
  })

function elsewhere(time: Time, key: string): Time | null {
  switch (key) {
    case 'ArrowLeft':
      return moved(time, -1, 0)
    case 'ArrowRight':
      return moved(time, 1, 0)
    case 'ArrowUp':
      return moved(time, 0, -step)
    case 'ArrowDown':
      return moved(time, 0, step)
    default:
      return null
  }
}

function longer(time: Time, key: string): Time | null {
  if (time.form === 'days') {
    const days = key === 'ArrowRight' ? 1 : key === 'ArrowLeft' ? -1 : 0
    return days === 0 ? null : stretchedTo(time, addDays(time.last, days), 0)
  }
  const minutes = key === 'ArrowDown' ? step : key === 'ArrowUp' ? -step : 0
  if (minutes === 0) return null
  const end = localAt(dateOf(time.end), minuteOf(time.end) + minutes)
  return stretchedTo(time, dateOf(end), minuteOf(end))
}
