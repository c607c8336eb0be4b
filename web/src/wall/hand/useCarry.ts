import { type KeyboardEvent, useState } from 'react'
import { type Brick, brickKey, type EventBrick, type Time } from '../../model/bricks'
import { addDays, dateOf, localAt, minuteOf, moved, step, stretchedTo } from '../../model/times'

interface Carry {
  brick: EventBrick
  time: Time
}

/** Moving a brick by keys: M takes it up, arrows move it, Shift with arrows lengthens it, Enter puts it down, Esc lets it be. */
export function useCarry(
  onChange: (brick: EventBrick, time: Time) => void,
  onRefused: (sentence: string) => void,
) {
  const [carry, setCarry] = useState<Carry | null>(null)

  const onBrickKey = (event: KeyboardEvent, brick: Brick) => {
    const key = event.key.length === 1 ? event.key.toLowerCase() : event.key
    if (!carry) {
      if (key !== 'm' || event.ctrlKey || event.metaKey || event.altKey) return
      event.preventDefault()
      if (brick.form === 'event' && brick.mayChange && brick.dates === 1)
        setCarry({ brick, time: brick.time })
      else onRefused('This event can be read, but not moved, with your step on its calendar.')
      return
    }
    if (brickKey(carry.brick) !== brickKey(brick)) return
    const next = event.shiftKey ? longer(carry.time, key) : elsewhere(carry.time, key)
    if (next) setCarry({ ...carry, time: next })
    else if (key === 'Enter') {
      onChange(carry.brick, carry.time)
      setCarry(null)
    } else if (key === 'Escape' || key === 'Tab') setCarry(null)
    else return
    if (key !== 'Tab') {
      event.preventDefault()
      event.stopPropagation()
    }
  }

  return { carry, onBrickKey }
}

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
