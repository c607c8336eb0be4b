import { clockText, daysText, lengthText, longDayText } from '../../app/dates'
import type { Time } from '../wall/bricks'
import { dateOf, minutesBetween } from '../wall/times'

/** When something is, in words. */
export function whenText(time: Time): string {
  if (time.form === 'days')
    return `${daysText(time.first, time.last)}${time.toBeSet ? ', times to be set' : ''}`
  return dateOf(time.start) === dateOf(time.end)
    ? `${longDayText(time.start)}, ${clockText(time.start)} – ${clockText(time.end)} (${lengthText(minutesBetween(time.start, time.end))})`
    : `${longDayText(time.start)}, ${clockText(time.start)} to ${longDayText(time.end)}, ${clockText(time.end)}`
}
