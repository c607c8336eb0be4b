import { useQuery } from '@tanstack/react-query'
import { type PointerEvent, type ReactNode, useRef } from 'react'
import { addDays, daysBetween } from '../../model/times'
import { dateText, periodText, shortMonthText } from '../../reader/dates'
import { ribbonQuery } from '../read/wallQuery'

interface RibbonProps {
  /** The first day of the first week on it. */
  from: string
  weeks: number
  /** What the wall shows. */
  first: string
  last: string
  today: string
  calendars: readonly string[]
  /** On how many days of a week too few are there, by the first of its days. */
  low: ReadonlyMap<string, number>
  onGo: (date: string) => void
  /** What can be asked of the weeks. */
  children: ReactNode
}

const lowText = (days: number) => (days === 1 ? 'too few on a day' : `too few on ${days} days`)

/** A full week, in minutes taken: the ribbon's cells are filled against it, or against the fullest where that is more. */
const full = 40 * 60

/** The strip of weeks over the wall: how full each is, where it clashes, what the wall shows. Press or drag to go there. */
export function Ribbon({ from, weeks, first, last, today, calendars, low, onGo, children }: RibbonProps) {
  const ribbon = useQuery(ribbonQuery(from, weeks, calendars))
  const strip = useRef<HTMLDivElement>(null)
  const went = useRef<string | null>(null)
  const most = Math.max(full, ...(ribbon.data ?? []).map((week) => week.minutes))
  const known = new Map((ribbon.data ?? []).map((week) => [week.first, week]))
  const cells = Array.from({ length: weeks }, (_, week) => addDays(from, week * 7))

  const scrub = (event: PointerEvent) => {
    const box = strip.current?.getBoundingClientRect()
    if (!box || (event.buttons & 1) === 0) return
    const week = Math.min(
      weeks - 1,
      Math.max(0, Math.floor(((event.clientX - box.left) / box.width) * weeks)),
    )
    const day = cells[week]
    if (!day || day === went.current) return
    went.current = day
    onGo(day)
  }
  const bracket = {
    left: `${(Math.max(0, daysBetween(from, first)) / (weeks * 7)) * 100}%`,
    right: `${(1 - Math.min(weeks * 7, daysBetween(from, last) + 1) / (weeks * 7)) * 100}%`,
  }
  const isInView = last >= from && first < addDays(from, weeks * 7)
  return (
    <div className="flex items-center gap-2 border-b border-cement-300 bg-cement-200 px-4 py-1 max-sm:px-2 print:hidden">
      <nav aria-label="Weeks" data-ribbon="true" className="min-w-0 flex-1">
        <div
          ref={strip}
          onPointerDown={scrub}
          onPointerMove={scrub}
          onPointerUp={() => {
            went.current = null
          }}
          className="relative flex h-8 touch-none gap-px"
        >
          {cells.map((day) => {
            const week = known.get(day)
            const lowDays = low.get(day) ?? 0
            return (
              <button
                key={day}
                type="button"
                tabIndex={day <= first && first < addDays(day, 7) ? 0 : -1}
                onKeyDown={(press) => {
                  const by = { ArrowLeft: -7, ArrowRight: 7 }[press.key]
                  if (by === undefined) return
                  press.preventDefault()
                  onGo(addDays(day, by))
                  const next = press.currentTarget[by < 0 ? 'previousElementSibling' : 'nextElementSibling']
                  if (next instanceof HTMLElement) next.focus()
                }}
                onClick={() => onGo(day)}
                data-past={addDays(day, 6) < today}
                title={`${periodText(day, addDays(day, 6))}: ${week ? hoursText(week.minutes) : ''}${week && week.clashes > 0 ? `, ${week.clashes} ${week.clashes === 1 ? 'clash' : 'clashes'}` : ''}${lowDays > 0 ? `, ${lowText(lowDays)}` : ''}`}
                aria-label={`Week of ${dateText(day)}${week && week.clashes > 0 ? ', with clashes' : ''}${lowDays > 0 ? `, ${lowText(lowDays)}` : ''}`}
                className="relative min-w-0 flex-1 overflow-hidden bg-cement-100"
              >
                <span
                  className="absolute inset-x-0 bottom-0 bg-cement-500/60"
                  style={{ height: `${((week?.minutes ?? 0) / most) * 100}%` }}
                />
                {week && week.clashes > 0 && (
                  <span className="absolute top-0 right-0 border-5 border-clash border-b-transparent border-l-transparent" />
                )}
                {lowDays > 0 && (
                  <span
                    data-low="true"
                    className="absolute inset-x-0 bottom-0 border-b-4 border-dotted border-clash"
                  />
                )}
              </button>
            )
          })}
          {cells.map(
            (day, index) =>
              (index === 0 || Number(day.slice(8)) <= 7) && (
                <span
                  key={day}
                  aria-hidden="true"
                  className="pointer-events-none absolute top-0 text-[10px] leading-3 text-ink"
                  style={{ left: `calc(${(index / weeks) * 100}% + 2px)` }}
                >
                  {shortMonthText(day)}
                </span>
              ),
          )}
          {isInView && (
            <span
              aria-hidden="true"
              className="pointer-events-none absolute -inset-y-0.5 border-2 border-ink"
              style={bracket}
            />
          )}
        </div>
      </nav>
      <div className="flex shrink-0 gap-1">{children}</div>
    </div>
  )
}

const hoursText = (minutes: number): string => `${Math.round(minutes / 60)} h taken`
