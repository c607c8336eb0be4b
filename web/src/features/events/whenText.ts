import { clockText, daysText, dayText, lengthText, longDayText } from '../../app/dates'
import type { Time } from '../wall/bricks'
import { addDays, dateOf, minutesBetween } from '../wall/times'

/** When somebody is away, as that is spoken of: the last day away and the day back. */
export function whenAwayText(time: Time): string {
  if (time.form !== 'days') return whenText(time)
  const back = `back on ${dayText(addDays(time.last, 1))}`
  return time.first === time.last
    ? `${longDayText(time.first)}, ${back}`
    : `${longDayText(time.first)} to ${longDayText(time.last)}, ${back}`
}

/** When something is, in words. */
export function whenText(time: Time): string {
  if (time.form === 'days')
    return `${daysText(time.first, time.last)}${time.toBeSet ? ', times to be set' : ''}`
  return dateOf(time.start) === dateOf(time.end)
    ? `${longDayText(time.start)}, ${clockText(time.start)} – ${clockText(time.end)} (${lengthText(minutesBetween(time.start, time.end))})`
    : `${longDayText(time.start)}, ${clockText(time.start)} to ${longDayText(time.end)}, ${clockText(time.end)}`
}
