import { useMemo } from 'react'
import { type Brick, brickKey, timeOf } from '../../model/bricks'
import { dateOf, daysOf } from '../../model/times'
import { dayText, longDayText, weekdayText } from '../../reader/dates'
import { useReader } from '../../reader/person'
import { BrickButton, endsOf } from '../bricks/BrickButton'
import { LightStrips } from '../bricks/Lights'
import { cellAt } from '../hand/cellAt'
import { barsOf } from '../hand/geometry'
import { useViewHand } from '../hand/useViewHand'
import type { ViewProps } from '../viewProps'

interface MonthViewProps extends ViewProps {
  zone: string
  /** The month that is meant, as 2026-03: days of others are paler. */
  month: string
  /** Opens one day whole. */
  onDay: (day: string) => void
}

const barHeight = 20
const roomFor = 4

/** Whole weeks, a row each: ranges as bars, what has an hour under them, and the rest behind a number. */
export function MonthView({ zone, month, onDay, ...view }: MonthViewProps) {
  const { days, now, bricks, face, lit, onLit, onPlace } = view
  const weeks = useMemo(
    () => Array.from({ length: days.length / 7 }, (_, week) => days.slice(week * 7, week * 7 + 7)),
    [days],
  )
  const { handlers, carried } = useViewHand(view, cellAt)
  const all =
    carried && !bricks.some((one) => brickKey(one) === brickKey(carried)) ? [...bricks, carried] : bricks

  return (
    <section
      aria-label="Wall"
      className="flex min-h-0 min-w-0 flex-1 flex-col bg-surface select-none"
      {...handlers}
    >
      <div className="grid grid-cols-7 border-b border-cement-300 bg-cement-50">
        {weeks[0]?.map((day) => (
          <h2 key={day} className="px-2 py-1 font-text text-[12px]">
            {weekdayText(day)}
          </h2>
        ))}
      </div>
      <div className="grid min-h-0 flex-1 auto-rows-[minmax(96px,1fr)] overflow-y-auto" data-scroller="true">
        {weeks.map((week) => (
          <Week
            key={week[0]}
            week={week}
            now={now}
            zone={zone}
            month={month}
            bricks={all}
            face={face}
            lit={lit}
            onLit={onLit}
            onPlace={onPlace}
            onDay={onDay}
          />
        ))}
      </div>
    </section>
  )
}

type WeekProps = Pick<ViewProps, 'now' | 'bricks' | 'face' | 'lit' | 'onLit' | 'onPlace'> &
  Pick<MonthViewProps, 'zone' | 'month' | 'onDay'> & { week: readonly string[] }

function Week({ week, now, zone, month, bricks, face, lit, onLit, onPlace, onDay }: WeekProps) {
  const { isWeekend } = useReader()
  const bars = barsOf(bricks, week, zone)
  const lanes = Math.min(roomFor - 1, Math.max(0, ...bars.map((bar) => bar.lane + 1)))
  return (
    <div className="relative grid grid-cols-7 border-b border-cement-200">
      {week.map((day, column) => {
        const here = hoursOn(bricks, day, zone)
        const covered = bars.filter((bar) => bar.first <= column && column <= bar.last)
        const room = roomFor - lanes
        const seen = here.length > room ? here.slice(0, room - 1) : here
        const hidden = here.length - seen.length + covered.filter((bar) => bar.lane >= lanes).length
        return (
          <div
            key={day}
            data-cell={day}
            data-weekend={isWeekend(day)}
            data-other={!day.startsWith(month)}
            className="grid min-w-0 content-start gap-px border-r border-cement-200 px-[3px] pb-1 data-[other=true]:bg-cement-100 data-[weekend=true]:bg-cement-100/70"
          >
            <button
              type="button"
              title={`${longDayText(day)}: open the day`}
              data-today={day === dateOf(now)}
              onClick={() => onDay(day)}
              onKeyDown={(press) => {
                if (press.key.toLowerCase() !== 'n' || press.ctrlKey || press.metaKey) return
                press.preventDefault()
                press.stopPropagation()
                onPlace(day, '')
              }}
              className="mt-0.5 justify-self-start rounded-control px-1 text-[12px] font-bold hover:bg-cement-200 data-[today=true]:bg-ink data-[today=true]:text-on-ink"
            >
              {day.endsWith('-01') ? dayText(day) : Number(day.slice(8))}
            </button>
            <div style={{ height: lanes * barHeight }} />
            <LightStrips day={day} gaps={lit} most={1} onLit={onLit} />
            {seen.map((brick) => {
              const shared = face(brick)
              return shared && <BrickButton key={brickKey(brick)} {...shared} flat />
            })}
            {hidden > 0 && (
              <button
                type="button"
                onClick={() => onDay(day)}
                className="relative justify-self-start rounded-control px-1 text-[11px] text-cement-700 hover:bg-cement-200"
              >
                {hidden} more<span className="sr-only"> on {longDayText(day)}</span>
              </button>
            )}
          </div>
        )
      })}
      {bars
        .filter((bar) => bar.lane < lanes)
        .map((bar) => {
          const shared = face(bar.brick)
          return (
            shared && (
              <BrickButton
                key={bar.key}
                {...shared}
                flat
                edges={endsOf(bar, 'left', 'right')}
                style={{
                  left: `calc(${(bar.first / 7) * 100}% + 3px)`,
                  width: `calc(${((bar.last - bar.first + 1) / 7) * 100}% - 7px)`,
                  top: 20 + bar.lane * barHeight,
                  height: barHeight - 1,
                }}
              />
            )
          )
        })}
    </div>
  )
}

/** What has hours on a day, in order; a brick over midnight stands on the day it begins. */
function hoursOn(bricks: readonly Brick[], day: string, zone: string): Brick[] {
  return bricks
    .filter((brick) => {
      const time = timeOf(brick, zone)
      return time.form !== 'days' && daysOf(time).first === day && barsOf([brick], [day], zone).length === 0
    })
    .toSorted((a, b) => startOf(a, zone).localeCompare(startOf(b, zone)))
}

const startOf = (brick: Brick, zone: string): string => {
  const time = timeOf(brick, zone)
  return time.form === 'days' ? '' : time.start
}
