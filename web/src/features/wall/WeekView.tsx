import { type KeyboardEvent, type ReactNode, useEffect, useMemo, useRef } from 'react'
import { dayText, longDayText } from '../../app/dates'
import { BrickButton } from './BrickButton'
import { type Brick, brickKey, type EventBrick, type Layer, type Time, timeOf } from './bricks'
import { barsOf, piecesOf } from './geometry'
import { dateOf, isPast, minuteOf, minutesInDay } from './times'
import { useHand } from './useHand'

interface WeekViewProps {
  days: readonly string[]
  zone: string
  /** The local time that is now, on the wall's clock. */
  now: string
  bricks: readonly Brick[]
  layers: ReadonlyMap<string, Layer>
  /** The layer a brick that is being drawn goes to. */
  makeIn: Layer | undefined
  /** A brick that is being written on the desk, drawn as it is typed. */
  draft: EventBrick | null
  chosen: string | null
  onOpen: (brick: Brick) => void
  onMake: (time: Time) => void
  onChange: (brick: EventBrick, time: Time) => void
  onBrickKey: (event: KeyboardEvent, brick: Brick) => void
}

const hourHeight = 50
const barHeight = 22
const dayHeight = 24 * hourHeight
const opensAt = 7.6

/** Hours downwards, a column a day, whole days across the top. */
export function WeekView(props: WeekViewProps) {
  const { days, zone, now, bricks, layers, makeIn, draft, chosen, onOpen, onMake, onChange, onBrickKey } =
    props
  const hours = useRef<HTMLDivElement>(null)
  const scroller = useRef<HTMLDivElement>(null)
  useEffect(() => {
    scroller.current?.scrollTo({ top: opensAt * hourHeight })
  }, [])

  const byKey = useMemo(() => new Map(bricks.map((brick) => [brickKey(brick), brick])), [bricks])
  const hand = useHand({ days, zone, hours, find: (key) => byKey.get(key), onOpen, onMake, onChange })
  const carried = hand.ghost ? asBrick(hand.ghost.brick, hand.ghost.time, makeIn) : draft
  const replaced = hand.held ?? (draft ? brickKey(draft) : null)
  const pieces = useMemo(() => piecesOf(bricks, days, zone), [bricks, days, zone])
  const bars = useMemo(() => barsOf(bricks, days, zone), [bricks, days, zone])
  const carriedPieces = carried ? piecesOf([carried], days, zone) : []
  const carriedBars = carried ? barsOf([carried], days, zone) : []
  const barLanes = Math.max(0, ...bars.map((bar) => bar.lane + 1)) + (carriedBars.length > 0 ? 1 : 0)
  const columns = { gridTemplateColumns: `repeat(${days.length}, minmax(0, 1fr))` }

  const face = (brick: Brick) => {
    const layer = layers.get(brick.calendarId)
    return (
      layer && {
        brick,
        layer,
        past: isPast(timeOf(brick, zone), now),
        chosen: brickKey(brick) === chosen,
        onOpen,
        onKeyDown: onBrickKey,
      }
    )
  }
  const isToday = (day: string) => day === dateOf(now)

  return (
    <section
      aria-label="Wall, week"
      className="flex min-h-0 min-w-0 flex-1 flex-col bg-surface select-none"
      {...hand.handlers}
    >
      <div className="flex border-b border-cement-200 bg-cement-50">
        <div className="w-13 shrink-0 border-r border-cement-200" />
        <div className="grid flex-1" style={columns}>
          {days.map((day) => (
            <h2
              key={day}
              data-today={isToday(day)}
              className="truncate border-r border-cement-200 px-2 py-1.5 font-text text-[13px] data-[today=true]:bg-ink data-[today=true]:text-on-ink"
              title={longDayText(day)}
            >
              {dayText(day)}
              {isToday(day) && <span className="font-normal"> today</span>}
            </h2>
          ))}
        </div>
      </div>

      <div className="flex border-b-2 border-cement-300 bg-cement-50" data-all-day="true">
        <div className="w-13 shrink-0 border-r border-cement-200 py-1.5 pr-1.5 text-right text-[11px] text-cement-600">
          all day
        </div>
        <div
          className="relative grid flex-1"
          style={{ ...columns, height: Math.max(1, barLanes) * barHeight + 10 }}
        >
          <Columns days={days} now={now} />
          {bars.map((bar) => {
            const shared = face(bar.brick)
            return (
              shared && (
                <BrickButton
                  key={bar.key}
                  {...shared}
                  flat
                  edge={bar.continuesAfter ? undefined : 'right'}
                  hand={bar.key === replaced ? 'left' : undefined}
                  style={barStyle(bar, days.length)}
                />
              )
            )
          })}
          {carriedBars.map((bar) => {
            const shared = face(bar.brick)
            return (
              shared && (
                <BrickButton
                  key="carried"
                  {...shared}
                  flat
                  hand="carried"
                  style={barStyle({ ...bar, lane: barLanes - 1 }, days.length)}
                />
              )
            )
          })}
        </div>
      </div>

      <div
        ref={scroller}
        className="relative min-h-0 flex-1 overflow-x-hidden overflow-y-auto"
        data-scroller="true"
      >
        <div className="flex" style={{ height: dayHeight }}>
          <HourNames />
          <div ref={hours} className="relative grid flex-1" style={columns} data-hours="true">
            <Columns days={days} now={now} lines />
            {pieces.map((piece) => {
              const shared = face(piece.brick)
              return (
                shared && (
                  <BrickButton
                    key={piece.key}
                    {...shared}
                    flat={piece.to - piece.from < 40}
                    edge={piece.continuesAfter ? undefined : 'bottom'}
                    hand={brickKey(piece.brick) === replaced ? 'left' : undefined}
                    style={pieceStyle(piece, days.length)}
                  />
                )
              )
            })}
            {carriedPieces.map((piece) => {
              const shared = face(piece.brick)
              return (
                shared && (
                  <BrickButton
                    key={`carried-${piece.day}`}
                    {...shared}
                    flat={piece.to - piece.from < 40}
                    hand="carried"
                    style={pieceStyle(piece, days.length)}
                  />
                )
              )
            })}
            <NowLine days={days} now={now} />
          </div>
        </div>
      </div>
    </section>
  )
}

/** A brick that is being moved, or a new one in the layer it would go to. */
function asBrick(brick: EventBrick | null, time: Time, layer: Layer | undefined): EventBrick | null {
  if (brick) return { ...brick, time }
  if (!layer) return null
  return {
    kind: 'event',
    calendarId: layer.calendarId,
    eventId: 'drawn',
    version: 0,
    only: null,
    time,
    zone: null,
    title: 'New event',
    place: '',
    notes: '',
    showAs: 'busy',
    cancelled: false,
    repeats: null,
    mayChange: false,
  }
}

const percent = (part: number, whole: number) => `${(part / whole) * 100}%`

function barStyle({ first, last, lane }: { first: number; last: number; lane: number }, days: number) {
  return {
    left: `calc(${percent(first, days)} + 3px)`,
    width: `calc(${percent(last - first + 1, days)} - 6px)`,
    top: lane * barHeight + 3,
    height: barHeight - 3,
  }
}

function pieceStyle(
  piece: { day: number; from: number; to: number; lane: number; lanes: number },
  days: number,
) {
  const width = 100 / days
  const laneWidth = width / piece.lanes
  return {
    left: `calc(${piece.day * width + piece.lane * laneWidth}% + 2px)`,
    width: `calc(${laneWidth}% - 4px)`,
    top: (piece.from / 60) * hourHeight,
    height: ((piece.to - piece.from) / 60) * hourHeight - 1,
  }
}

function Columns({ days, now, lines }: { days: readonly string[]; now: string; lines?: boolean }) {
  return (
    <>
      {days.map((day) => (
        <div
          key={day}
          data-weekend={isWeekend(day)}
          data-past={day < dateOf(now)}
          className={`border-r border-cement-200 data-[weekend=true]:bg-cement-100 ${lines ? 'hour-lines' : ''}`}
        />
      ))}
    </>
  )
}

const isWeekend = (day: string) => [0, 6].includes(new Date(`${day}T00:00:00Z`).getUTCDay())

function HourNames(): ReactNode {
  return (
    <div className="relative w-13 shrink-0 border-r border-cement-200 text-right text-[11px] text-cement-600">
      {Array.from({ length: 23 }, (_, index) => index + 1).map((hour) => (
        <span key={hour} className="absolute right-1.5 -translate-y-1/2" style={{ top: hour * hourHeight }}>
          {String(hour).padStart(2, '0')}:00
        </span>
      ))}
    </div>
  )
}

function NowLine({ days, now }: { days: readonly string[]; now: string }) {
  const day = days.indexOf(dateOf(now))
  if (day < 0) return null
  return (
    <div
      className="pointer-events-none absolute z-3 h-0.5 bg-ink"
      style={{
        left: percent(day, days.length),
        width: percent(1, days.length),
        top: (minuteOf(now) / minutesInDay) * dayHeight,
      }}
      data-now="true"
    >
      <span className="absolute -top-[3px] -left-1 size-2 bg-ink" />
    </div>
  )
}
