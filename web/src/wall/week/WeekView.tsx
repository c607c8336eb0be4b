import { useMemo, useRef, useState } from 'react'
import type { EventBrick } from '../../model/bricks'
import { useReader } from '../../reader/person'
import type { Place } from '../hand/grip'
import { useViewHand } from '../hand/useViewHand'
import { bricksOfDays } from '../read/bricksOfDays'
import { useKeptWidth } from '../useKeptWidth'
import { useWidth } from '../useWidth'
import type { ViewProps } from '../viewProps'
import { AllDayRow } from './AllDayRow'
import { Corner, HourNames } from './HourAxis'
import { HourGrid } from './HourGrid'
import type { Lane } from './lanes'
import { scaleOf } from './scale'
import { useDaysInSight } from './useDaysInSight'
import { WeekHead } from './WeekHead'
import { WeekStrip } from './WeekStrip'

/** Its columns stand over those that scroll: it leaves as much room at its end as their bar takes. */
const abreast = 'gutter overflow-hidden'

interface WeekViewProps extends ViewProps {
  lanes: readonly Lane[]
  /** Whether it is a phone's: three days in sight, the others pushed aside, and all of them named over it. */
  narrow: boolean
  /** The day that is meant, which is in sight at first. */
  date: string
}

/** How many days a phone has in sight. */
const inSight = 3

/** Hours downwards, a column a day, split into lanes; whole days across the top. */
export function WeekView({ lanes, narrow, date, ...view }: WeekViewProps) {
  const { days, now, bricks, face } = view
  const { zone, preferences } = useReader().person
  const hours = useRef<HTMLDivElement>(null)
  const whole = useRef<HTMLDivElement>(null)
  const wall = useRef<HTMLDivElement>(null)
  const keptWidth = useKeptWidth(wall, view.beside, days.length)
  const hoursPx = preferences.secondZone ? 104 : 52
  const isPushed = narrow && days.length > inSight
  const kept = {
    minWidth: isPushed ? `calc(${hoursPx}px + (100% - ${hoursPx}px) * ${days.length / inSight})` : keptWidth,
  }
  const counts = useMemo(
    () => (isPushed ? [...bricksOfDays(bricks, days, zone).values()].map((one) => one.length) : []),
    [isPushed, bricks, days, zone],
  )
  const { first, showDay, onPushed } = useDaysInSight(wall, isPushed ? days : none, date, hoursPx)
  const [night, setNight] = useState(false)
  const scale = useMemo(
    () => scaleOf(preferences.dayBegins - 60, preferences.dayEnds + 120, night),
    [preferences.dayBegins, preferences.dayEnds, night],
  )
  const widthPx = useWidth(hours)

  const placeAt = (x: number, y: number): Place | null => {
    const box = hours.current?.getBoundingClientRect()
    const top = whole.current?.getBoundingClientRect()
    if (!box || !top) return null
    const columns = days.length * lanes.length
    const column = Math.min(columns - 1, Math.max(0, Math.floor(((x - box.left) / box.width) * columns)))
    const day = days[Math.floor(column / lanes.length)] ?? days[0] ?? ''
    const lane = lanes[column % lanes.length]?.key ?? ''
    return {
      day,
      lane,
      minute: y < top.bottom ? null : Math.min(1440, Math.max(0, scale.minute(y - box.top))),
    }
  }
  const { handlers, carried, carriedLane } = useViewHand(view, placeAt)
  const laid = {
    days,
    now,
    lanes,
    zone,
    bricks,
    face,
    carried,
    carriedLane: carried ? laneOf(carried, carriedLane, lanes) : 0,
    grid: { gridTemplateColumns: `repeat(${days.length}, minmax(0, 1fr))` },
  }

  return (
    <section
      aria-label="Wall"
      data-paper="one page"
      className="flex min-h-0 min-w-0 flex-1 flex-col bg-surface select-none"
    >
      {isPushed && (
        <WeekStrip days={days} now={now} counts={counts} first={first} inSight={inSight} onDay={showDay} />
      )}
      <div
        ref={wall}
        data-pushed={isPushed}
        className="flex min-h-0 min-w-0 flex-1 flex-col overflow-x-auto overflow-y-hidden data-[pushed=true]:snap-x data-[pushed=true]:snap-proximity print:h-auto print:overflow-visible"
        style={{ scrollPaddingLeft: hoursPx }}
        // The hours stay in sight while the days are pushed aside under them.
        onScroll={(event) => {
          const { style, scrollLeft } = event.currentTarget
          style.setProperty('--aside', `${scrollLeft}px`)
          onPushed()
        }}
        {...handlers}
      >
        <div className={`${abreast} flex border-b border-cement-200 bg-cement-50`} style={kept}>
          <Corner second={preferences.secondZone} zone={zone} />
          <WeekHead days={days} lanes={lanes} now={now} grid={laid.grid} />
        </div>
        <div
          className={`${abreast} flex border-b-2 border-cement-300 bg-cement-50`}
          style={kept}
          data-all-day="true"
        >
          <AllDayRow {...laid} ref={whole} />
        </div>
        <div
          className="gutter relative min-h-0 flex-1 overflow-x-hidden overflow-y-auto"
          style={kept}
          data-scroller="true"
        >
          <div className="flex" style={{ height: scale.height }}>
            <HourNames
              scale={scale}
              second={preferences.secondZone}
              day={days[0] ?? ''}
              zone={zone}
              open={night}
              onNight={() => setNight(!night)}
            />
            <HourGrid
              {...laid}
              lit={view.lit}
              pointed={view.pointed}
              onLit={view.onLit}
              onPlace={view.onPlace}
              scale={scale}
              widthPx={widthPx}
              ref={hours}
            />
          </div>
        </div>
      </div>
    </section>
  )
}

const none: readonly string[] = []

/** Where among the lanes a brick would lie: in the one it is carried over, else in the first that holds it. */
function laneOf(brick: EventBrick, key: string, lanes: readonly Lane[]): number {
  const over = lanes.findIndex((lane) => lane.key === key)
  return Math.max(0, over >= 0 ? over : lanes.findIndex((lane) => lane.holds(brick)))
}
