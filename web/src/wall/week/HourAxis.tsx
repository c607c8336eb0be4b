import { Moon, Sun } from 'lucide-react'
import type { ReactNode } from 'react'
import { localAt } from '../../model/times'
import { clockText } from '../../reader/dates'
import type { Scale } from './scale'

/** Stands before the days also where they are pushed aside. */
export const staying = 'relative z-6 translate-x-(--aside,0px)'

/** What is folded away: set back, so that nobody takes it for a morning. */
export function Night({ scale }: { scale: Scale }) {
  if (!scale.folded) return null
  const band = 'night pointer-events-none absolute inset-x-0'
  return (
    <>
      <div aria-hidden="true" className={band} style={{ top: 0, height: scale.y(scale.opens) }} />
      <div aria-hidden="true" className={band} style={{ top: scale.y(scale.closes), bottom: 0 }} />
    </>
  )
}

/** A line for every hour that has room for one. */
export function HourLines({ scale }: { scale: Scale }) {
  return (
    <div className="pointer-events-none absolute inset-0" aria-hidden="true">
      {Array.from({ length: 23 }, (_, index) => index + 1).map(
        (hour) =>
          isWide(scale, hour) && (
            <div
              key={hour}
              className="absolute inset-x-0 border-t border-cement-200"
              style={{ top: scale.y(hour * 60) }}
            />
          ),
      )}
    </div>
  )
}

/** Whether an hour has room for a line and its name. */
const isWide = (scale: Scale, hour: number) =>
  scale.y(hour * 60) - scale.y((hour - 1) * 60) > 20 || scale.y((hour + 1) * 60) - scale.y(hour * 60) > 20

/** An hour of a day in one zone, as a clock in another shows it. */
const elsewhere = (day: string, hour: number, zone: string, second: string) =>
  clockText(
    Temporal.PlainDateTime.from(localAt(day, hour * 60))
      .toZonedDateTime(zone)
      .withTimeZone(second)
      .toPlainDateTime()
      .toString({ smallestUnit: 'second' }),
  )

const place = (zone: string) => zone.split('/').at(-1)?.replaceAll('_', ' ') ?? zone

/** What stands over the names of hours: the zones, where there are two. */
export function Corner({ second, zone }: { second: string | null; zone: string }) {
  return (
    <div className={`${staying} flex shrink-0 bg-cement-50`}>
      {second && (
        <div
          title={second}
          className="w-13 truncate border-r border-cement-200 px-1 pt-2 text-right text-[11px] text-cement-600"
        >
          {place(second)}
        </div>
      )}
      <div className="w-13 truncate border-r border-cement-200 px-1 pt-2 text-right text-[11px] text-cement-600">
        {second ? place(zone) : ''}
      </div>
    </div>
  )
}

/** The names of hours beside the days, in both zones where there are two; and what opens and folds the night. */
export function HourNames({
  scale,
  second,
  day,
  zone,
  open,
  onNight,
}: {
  scale: Scale
  second: string | null
  day: string
  zone: string
  open: boolean
  onNight: () => void
}): ReactNode {
  const names = Array.from({ length: 23 }, (_, index) => index + 1).filter((hour) => isWide(scale, hour))
  const column = (text: (hour: number) => string) => (
    <div className="relative w-13 shrink-0 border-r border-cement-200 text-right text-[11px] text-cement-600">
      {names.map((hour) => (
        <span key={hour} className="absolute right-1.5 -translate-y-1/2" style={{ top: scale.y(hour * 60) }}>
          {text(hour)}
        </span>
      ))}
    </div>
  )
  return (
    <div className={`${staying} flex shrink-0 bg-surface`}>
      {second && column((hour) => elsewhere(day, hour, zone, second))}
      {column((hour) => clockText(localAt(day, hour * 60)))}
      <button
        type="button"
        onClick={onNight}
        aria-expanded={open}
        title={open ? 'Fold the night away' : 'Open the night'}
        aria-label={open ? 'Fold the night away' : 'Open the night'}
        className="absolute top-0.5 left-0.5 z-2 grid size-6 place-items-center rounded-control text-cement-700 hover:bg-cement-200"
      >
        {open ? <Sun size={14} aria-hidden="true" /> : <Moon size={14} aria-hidden="true" />}
      </button>
    </div>
  )
}
