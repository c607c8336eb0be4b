import { type CSSProperties, type Ref, useMemo } from 'react'
import type { Brick, EventBrick } from '../../model/bricks'
import { BrickButton, endsOf } from '../bricks/BrickButton'
import { type Bar, barsOf } from '../hand/geometry'
import type { ViewProps } from '../viewProps'
import { Columns } from './Columns'
import { staying } from './HourAxis'
import type { Lane } from './lanes'
import { layer, overAll } from './layers'
import { percent } from './NowLine'

const barHeight = 22

interface AllDayRowProps {
  days: readonly string[]
  lanes: readonly Lane[]
  now: string
  zone: string
  bricks: readonly Brick[]
  face: ViewProps['face']
  carried: EventBrick | null
  /** Where among the lanes that would lie. */
  carriedLane: number
  grid: CSSProperties
  /** Where the days themselves begin. */
  ref: Ref<HTMLDivElement>
}

/** What takes whole days, as bars across them. */
export function AllDayRow({
  days,
  lanes,
  now,
  zone,
  bricks,
  face,
  carried,
  carriedLane,
  grid,
  ref,
}: AllDayRowProps) {
  const bars = useMemo(
    () => lanes.map((lane) => barsOf(lanes.length === 1 ? bricks : bricks.filter(lane.holds), days, zone)),
    [lanes, bricks, days, zone],
  )
  const carriedBars = carried ? barsOf([carried], days, zone) : []
  // A person's lane of one day is too narrow for bars across days: there, each lane has its own.
  const rows =
    Math.max(0, ...bars.flatMap((lane) => lane.map((bar) => bar.lane + 1))) + (carriedBars.length > 0 ? 1 : 0)
  // While something is in the hand only it is drawn anew, however many bricks lie around it.
  const laid = useMemo(
    () => (
      <div className={layer}>
        {bars.flatMap((inLane, lane) =>
          inLane.map((bar) => {
            const shared = face(bar.brick)
            return (
              shared && (
                <BrickButton
                  key={`${bar.key}/${lanes[lane]?.key}`}
                  {...shared}
                  flat
                  edges={endsOf(bar, 'left', 'right')}
                  style={barStyle(bar, days.length, lane, lanes.length)}
                />
              )
            )
          }),
        )}
      </div>
    ),
    [bars, face, days.length, lanes],
  )
  return (
    <>
      <div
        className={`${staying} w-13 shrink-0 border-r bg-cement-50 border-cement-200 py-1.5 pr-1.5 text-right text-[11px] text-cement-600`}
      >
        all day
      </div>
      <div
        ref={ref}
        className="relative grid flex-1"
        style={{ ...grid, height: Math.max(1, rows) * barHeight + 10 }}
      >
        <Columns days={days} now={now} lanes={lanes.length} />
        {laid}
        <div className={overAll}>
          {carriedBars.map((bar) => {
            const shared = face(bar.brick)
            return (
              shared && (
                <BrickButton
                  key="carried"
                  {...shared}
                  flat
                  hand="carried"
                  style={barStyle({ ...bar, lane: rows - 1 }, days.length, carriedLane, lanes.length)}
                />
              )
            )
          })}
        </div>
      </div>
    </>
  )
}

function barStyle({ first, last, lane: row }: Bar, days: number, lane: number, lanes: number) {
  const at = lanes === 1 ? first : first + lane / lanes
  const width = lanes === 1 ? last - first + 1 : 1 / lanes
  return {
    left: `calc(${percent(at, days)} + 2px)`,
    width: `calc(${percent(width, days)} - 4px)`,
    top: row * barHeight + 3,
    height: barHeight - 3,
  }
}
