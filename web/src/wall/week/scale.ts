import { minutesInDay } from '../../model/times'

/** How the minutes of a day lie down the wall: usual hours wide, the night folded to a strip that is still there. */
export interface Scale {
  height: number
  /** From a minute of the day to pixels from the top. */
  y: (minute: number) => number
  /** And back. */
  minute: (y: number) => number
  folded: boolean
  /** The minutes between which it is wide. */
  opens: number
  closes: number
}

const hourHeight = 50
const nightHourHeight = 9

/** A scale that folds what lies outside two minutes of the day; nothing where the night is open. */
export function scaleOf(begins: number, ends: number, open: boolean): Scale {
  const from = open ? 0 : Math.max(0, Math.floor(begins / 60) * 60)
  const to = open ? minutesInDay : Math.min(minutesInDay, Math.ceil(ends / 60) * 60)
  const night = nightHourHeight / 60
  const day = hourHeight / 60
  const y = (minute: number) =>
    Math.min(minute, from) * night +
    Math.max(0, Math.min(minute, to) - from) * day +
    Math.max(0, minute - to) * night
  const [top, bottom] = [y(from), y(to)]
  return {
    height: y(minutesInDay),
    y,
    minute: (at) => {
      if (at < top) return at / night
      return at <= bottom ? from + (at - top) / day : to + (at - bottom) / night
    },
    opens: from,
    closes: to,
    folded: !open && (from > 0 || to < minutesInDay),
  }
}
