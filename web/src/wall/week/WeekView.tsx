import { useMemo, useRef, useState } from 'react'
import type { EventBrick } from '../../model/bricks'
import { useReader } from '../../reader/person'
import type { Place } from '../hand/grip'
import { useViewHand } from '../hand/useViewHand'
import { useKeptWidth } from '../useKeptWidth'
import { useWidth } from '../useWidth'
import type { ViewProps } from '../viewProps'
import { AllDayRow } from './AllDayRow'
import { Corner, HourNames } from './HourAxis'
import { HourGrid } from './HourGrid'
import type { Lane } from './lanes'
import { scaleOf } from './scale'
import { WeekHead } from './WeekHead'

/** Its columns stand over those that scroll: it leaves as much room at its end as their bar takes. */
const abreast = 'gutter overflow-hidden'

/** Hours downwards, a column a day, split into lanes; whole days across the top. */
export function WeekView({ lanes, ...view }: ViewProps & { lanes: readonly Lane[] }) {
  const { days, now, bricks, face } = view
  const { zone, preferences } = useReader().person
  const hours = useRef<HTMLDivElement>(null)
  const whole = useRef<HTMLDivElement>(null)
  const wall = useRef<HTMLElement>(null)
  const kept = { minWidth: useKeptWidth(wall, view.beside, days.length) }
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
      ref={wall}
      data-paper="one page"
      className="flex min-h-0 min-w-0 flex-1 flex-col overflow-x-auto overflow-y-hidden bg-surface select-none"
      // The hours stay in sight while the days are pushed aside under them.
      onScroll={(event) => {
        const { style, scrollLeft } = event.currentTarget
        style.setProperty('--aside', `${scrollLeft}px`)
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
    </section>
  )
}

/** Where among the lanes a brick would lie: in the one it is carried over, else in the first that holds it. */
function laneOf(brick: EventBrick, key: string, lanes: readonly Lane[]): number {
  const over = lanes.findIndex((lane) => lane.key === key)
  return Math.max(0, over >= 0 ? over : lanes.findIndex((lane) => lane.holds(brick)))
}
