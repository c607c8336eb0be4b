import { type CSSProperties, type Ref, useMemo } from 'react'
import type { EventBrick } from '../../model/bricks'
import { BrickButton } from '../bricks/BrickButton'
import { Lights } from '../bricks/Lights'
import { piecesOf, timedByDay } from '../hand/geometry'
import type { ViewProps } from '../viewProps'
import { Columns } from './Columns'
import { DayColumn, pieceStyle } from './DayColumn'
import { HourLines, Night } from './HourAxis'
import type { Lane } from './lanes'
import { layer, overAll } from './layers'
import { NowLine, Pointed } from './NowLine'
import type { Scale } from './scale'

type HourGridProps = Pick<
  ViewProps,
  'days' | 'now' | 'bricks' | 'face' | 'lit' | 'pointed' | 'onLit' | 'onPlace'
> & {
  lanes: readonly Lane[]
  zone: string
  scale: Scale
  carried: EventBrick | null
  /** Where among the lanes that would lie. */
  carriedLane: number
  grid: CSSProperties
  /** How wide all days are together. */
  widthPx: number
  ref: Ref<HTMLDivElement>
}

const nothing: ViewProps['bricks'] = []

/** The days with their hours downwards, and what lies on them at its time. */
export function HourGrid({
  days,
  now,
  bricks,
  face,
  lit,
  pointed,
  onLit,
  onPlace,
  lanes,
  zone,
  scale,
  carried,
  carriedLane,
  grid,
  widthPx,
  ref,
}: HourGridProps) {
  const timed = useMemo(() => timedByDay(bricks, days, zone), [bricks, days, zone])
  const carriedPieces = carried ? piecesOf([carried], days, zone) : []
  return (
    <div ref={ref} className="relative grid flex-1" style={grid} data-hours="true">
      <Columns days={days} now={now} lanes={lanes.length} cells={{ lanes, onPlace }} />
      <Night scale={scale} />
      <HourLines scale={scale} />
      {lit.length > 0 && (
        <div className={`${layer} grid`} style={grid}>
          {days.map((day) => (
            <Lights key={day} day={day} gaps={lit} scale={scale} onLit={onLit} />
          ))}
        </div>
      )}
      <div className={`${layer} grid`} style={grid}>
        {days.map((day, index) => (
          <DayColumn
            key={day}
            day={day}
            zone={zone}
            bricks={timed[index] ?? nothing}
            lanes={lanes}
            scale={scale}
            widthPx={Math.round(widthPx / days.length)}
            face={face}
          />
        ))}
      </div>
      <div className={overAll}>
        {carriedPieces.map((piece) => {
          const shared = face(piece.brick)
          return (
            shared && (
              <BrickButton
                key={`carried-${piece.day}`}
                {...shared}
                flat={scale.y(piece.to) - scale.y(piece.from) < 33}
                hand="carried"
                style={pieceStyle(piece, days.length, carriedLane, lanes.length, scale)}
              />
            )
          )
        })}
      </div>
      {pointed && <Pointed days={days} pointed={pointed} scale={scale} />}
      <NowLine days={days} now={now} scale={scale} />
    </div>
  )
}
