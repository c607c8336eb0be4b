import type { Gap } from '../../model/availabilityQueries'
import { dateOf, minuteOf } from '../../model/times'
import { clockText, longDayText } from '../../reader/dates'
import type { Scale } from '../week/scale'

/** A gap as it lies on one day, in minutes. */
export interface Light {
  gap: Gap
  from: number
  to: number
}

/** The parts of gaps that lie on a day, in order; the best of those that are the same. */
export function lightsOn(gaps: readonly Gap[], day: string): Light[] {
  const lights: Light[] = []
  for (const gap of gaps) {
    const first = dateOf(gap.start)
    const last = dateOf(gap.end)
    if (day < first || last < day) continue
    const from = day === first ? minuteOf(gap.start) : 0
    const to = day === last ? minuteOf(gap.end) : 1440
    if (to > from && !lights.some((one) => one.from <= from && to <= one.to)) lights.push({ gap, from, to })
  }
  return lights.toSorted((a, b) => a.from - b.from)
}

const lightWords = ({ gap, from, to }: Light, day: string): string =>
  `${clockOf(day, from)} – ${clockOf(day, to)}${gap.missing.length > 0 ? ` without ${gap.missing.length}` : ''}`

const lightLabel = (light: Light, day: string, isGap: boolean): string =>
  isGap
    ? `Gap on ${longDayText(day)}, ${lightWords(light, day)}: make an event in it`
    : `Proposed on ${longDayText(day)}, ${lightWords(light, day)}`

const clockOf = (day: string, minute: number) =>
  clockText(
    `${day}T${String(Math.floor((minute % 1440) / 60)).padStart(2, '0')}:${String(minute % 60).padStart(2, '0')}:00`,
  )

interface LightsProps {
  day: string
  gaps: readonly Gap[]
  scale: Scale
  /** What pressing one does; null where they are only to be seen. */
  onLit: ((gap: Gap) => void) | null
}

/** Gaps on a column of hours, under its bricks: lit, with what they are at their head. */
export function Lights({ day, gaps, scale, onLit }: LightsProps) {
  return (
    <div className="pointer-events-none relative">
      {lightsOn(gaps, day).map((light) => {
        const top = scale.y(light.from)
        return (
          <div
            key={`${light.from}/${light.to}`}
            data-lit="true"
            className="absolute inset-x-0 border-y border-gap-edge bg-gap/45"
            style={{ top, height: Math.max(10, scale.y(light.to) - top) }}
          >
            <button
              type="button"
              disabled={onLit === null}
              onClick={() => onLit?.(light.gap)}
              aria-label={lightLabel(light, day, onLit !== null)}
              className="pointer-events-auto absolute right-0 bottom-0 max-w-full truncate bg-gap px-1 text-[11px] leading-4 font-bold text-on-gap"
            >
              {lightWords(light, day)}
            </button>
          </div>
        )
      })}
    </div>
  )
}

/** Gaps of a day where it has no hours to lie on: a strip each. */
export function LightStrips({
  day,
  gaps,
  most,
  onLit,
}: {
  day: string
  gaps: readonly Gap[]
  most: number
  onLit: ((gap: Gap) => void) | null
}) {
  const lights = lightsOn(gaps, day)
  return (
    <>
      {lights.slice(0, most).map((light) => (
        <button
          key={`${light.from}/${light.to}`}
          type="button"
          data-lit="true"
          disabled={onLit === null}
          onClick={() => onLit?.(light.gap)}
          aria-label={lightLabel(light, day, onLit !== null)}
          className="w-full truncate border-l-3 border-gap-edge bg-gap px-1 text-left text-[12px] leading-[18px] text-on-gap hover:underline"
        >
          {lightWords(light, day)}
        </button>
      ))}
      {lights.length > most && (
        <span className="px-1 text-[11px] text-cement-700">{lights.length - most} more</span>
      )}
    </>
  )
}
