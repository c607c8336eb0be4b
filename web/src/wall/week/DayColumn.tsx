import { memo, useMemo } from 'react'
import type { Brick } from '../../model/bricks'
import { BrickButton, endsOf, type Room } from '../bricks/BrickButton'
import { fitsForSure } from '../hand/fit'
import { type Piece, piecesOf } from '../hand/geometry'
import type { ViewProps } from '../viewProps'
import type { Lane } from './lanes'
import type { Scale } from './scale'

interface DayColumnProps {
  day: string
  zone: string
  /** What has hours on this day. */
  bricks: readonly Brick[]
  lanes: readonly Lane[]
  scale: Scale
  widthPx: number
  face: ViewProps['face']
}

/**
 * The bricks of one day, split by lanes and where they overlap. A box of its own: the browser looks for what is under
 * the pointer in one of them, and a change draws only the days it is in anew.
 */
export const DayColumn = memo(function DayColumn({
  day,
  zone,
  bricks,
  lanes,
  scale,
  widthPx,
  face,
}: DayColumnProps) {
  const laid = useMemo(
    () => lanes.map((lane) => piecesOf(lanes.length === 1 ? bricks : bricks.filter(lane.holds), [day], zone)),
    [lanes, bricks, day, zone],
  )
  return (
    <div className="relative contain-strict">
      {laid.flatMap((pieces, lane) =>
        pieces.map((piece) => {
          const shared = face(piece.brick)
          const style = pieceStyle(piece, 1, lane, lanes.length, scale)
          const width = widthPx / lanes.length / piece.lanes - 4
          return (
            shared && (
              <BrickButton
                key={`${piece.key}/${lanes[lane]?.key}`}
                {...shared}
                flat={style.height < 32}
                room={roomOf(width, style.height)}
                fits={fitsForSure(piece.brick, shared.state.whose, width, Math.floor(style.height / 16))}
                edges={endsOf(piece, 'top', 'bottom')}
                style={style}
              />
            )
          )
        }),
      )}
    </div>
  )
}, isSameDay)

function isSameDay(a: DayColumnProps, b: DayColumnProps): boolean {
  const { bricks: before, ...rest } = a
  const { bricks: after, ...now } = b
  return (
    before.length === after.length &&
    before.every((brick, index) => brick === after[index]) &&
    Object.entries(rest).every(([key, value]) => value === now[key as keyof typeof now])
  )
}

/** What a width and a height leave for words, in pixels. */
function roomOf(width: number, height: number): Room {
  if (width >= 58) return undefined
  if (width < 18) return 'bare'
  if (width >= 44 || height <= 40) return 'small'
  return width < 36 ? 'spine' : 'tight'
}

/** Where a piece lies in a box that is as wide as some days. */
export function pieceStyle(piece: Piece, days: number, lane: number, lanes: number, scale: Scale) {
  const column = 100 / days / lanes
  const width = column / piece.lanes
  const top = scale.y(piece.from)
  return {
    left: `calc(${(piece.day * lanes + lane) * column + piece.lane * width}% + 2px)`,
    width: `calc(${width}% - 4px)`,
    top,
    height: Math.max(8, scale.y(piece.to) - top - 1),
  }
}
