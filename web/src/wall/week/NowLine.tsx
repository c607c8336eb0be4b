import { dateOf, minuteOf } from '../../model/times'
import type { Scale } from './scale'

/** A part of a whole, for a style. */
export const percent = (part: number, whole: number) => `${(part / whole) * 100}%`

/** The time that is asked about: a frame around it. */
export function Pointed({
  days,
  pointed,
  scale,
}: {
  days: readonly string[]
  pointed: { start: string; end: string }
  scale: Scale
}) {
  const day = days.indexOf(dateOf(pointed.start))
  if (day < 0) return null
  const top = scale.y(minuteOf(pointed.start))
  const end = dateOf(pointed.end) === dateOf(pointed.start) ? minuteOf(pointed.end) : 1440
  return (
    <div
      className="pointer-events-none absolute z-3 border-2 border-ink"
      style={{
        left: percent(day, days.length),
        width: percent(1, days.length),
        top,
        height: Math.max(6, scale.y(end) - top),
      }}
      data-pointed="true"
    />
  )
}

/** What o’clock it is, on today’s column. */
export function NowLine({ days, now, scale }: { days: readonly string[]; now: string; scale: Scale }) {
  const day = days.indexOf(dateOf(now))
  if (day < 0) return null
  return (
    <div
      className="pointer-events-none absolute z-3 h-0.5 bg-ink"
      style={{ left: percent(day, days.length), width: percent(1, days.length), top: scale.y(minuteOf(now)) }}
      data-now="true"
    >
      <span className="absolute -top-[3px] -left-1 size-2 bg-ink" />
    </div>
  )
}
