import { clockText, daysText, dayText, lengthText, longDayText } from '../reader/dates'
import type { Time } from './bricks'
import { dateOf, minutesBetween } from './times'

/** When somebody is away, as that is spoken of: the last day away and, where it is known, the day back. */
export function whenAwayText(time: Time, back: string | null | undefined): string {
  if (time.form !== 'days') return whenText(time)
  const days =
    time.first === time.last
      ? longDayText(time.first)
      : `${longDayText(time.first)} to ${longDayText(time.last)}`
  return back ? `${days}, back on ${dayText(back)}` : days
}

/** When something is, in words. */
export function whenText(time: Time): string {
  if (time.form === 'days')
    return `${daysText(time.first, time.last)}${time.toBeSet ? ', times to be set' : ''}`
  return dateOf(time.start) === dateOf(time.end)
    ? `${longDayText(time.start)}, ${clockText(time.start)} – ${clockText(time.end)} (${lengthText(minutesBetween(time.start, time.end))})`
    : `${longDayText(time.start)}, ${clockText(time.start)} to ${longDayText(time.end)}, ${clockText(time.end)}`
}
