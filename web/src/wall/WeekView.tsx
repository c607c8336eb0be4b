import { Moon, Sun } from 'lucide-react'
import { type ReactNode, useMemo, useRef, useState } from 'react'
import { Temporal } from 'temporal-polyfill'
import { type Brick, brickKey, type EventBrick } from '../model/bricks'
import { dateOf, localAt, minuteOf } from '../model/times'
import { clockText, dayText, longDayText } from '../reader/dates'
import { useReader } from '../reader/person'
import { BrickButton, endsOf } from './BrickButton'
import { DayColumn, pieceStyle } from './DayColumn'
import { type Bar, barsOf, piecesOf, timedByDay } from './geometry'
import { Lights } from './Lights'
import type { Lane } from './lanes'
import { type Scale, scaleOf } from './scale'
import { type Place, useHand } from './useHand'
import { useKeptWidth } from './useKeptWidth'
import { useLeftBehind } from './useLeftBehind'
import { useWidth } from './useWidth'
import type { ViewProps } from './viewProps'

const barHeight = 22

const nothing: Brick[] = []

/**
 * What lies on the wall, and over it what is in the hand: each laid out by itself, so that the one that moves does not
 * have thousands of others laid out again.
 */
const layer = 'absolute inset-0 contain-layout contain-size contain-style'
const overAll = `${layer} pointer-events-none z-5`

/** Stands before the days also where they are pushed aside. */
const staying = 'relative z-6 translate-x-(--aside,0px)'

/** Its columns stand over those that scroll: it leaves as much room at its end as their bar takes. */
const abreast = 'gutter overflow-hidden'

/** Hours downwards, a column a day, split into lanes; whole days across the top. */
export function WeekView({
  days,
  lanes,
  now,
  bricks,
  face,
  carried: draft,
  draftLane,
  hand: acts,
  asNew,
  lit,
  pointed,
  onLit,
  onPlace,
  beside,
}: ViewProps & { lanes: readonly Lane[] }) {
  const { person } = useReader()
  const { zone, preferences } = person
  const hours = useRef<HTMLDivElement>(null)
  const whole = useRef<HTMLDivElement>(null)
  const wall = useRef<HTMLElement>(null)
  const keptWidth = useKeptWidth(wall, beside, days.length)
  const kept = { minWidth: keptWidth }
  const [night, setNight] = useState(false)
  const scale = useMemo(
    () => scaleOf(preferences.dayBegins - 60, preferences.dayEnds + 120, night),
    [preferences.dayBegins, preferences.dayEnds, night],
  )
  const columns = days.length * lanes.length
  const widthPx = useWidth(hours)

  const placeAt = (x: number, y: number): Place | null => {
    const box = hours.current?.getBoundingClientRect()
    const top = whole.current?.getBoundingClientRect()
    if (!box || !top) return null
    const column = Math.min(columns - 1, Math.max(0, Math.floor(((x - box.left) / box.width) * columns)))
    const day = days[Math.floor(column / lanes.length)] ?? days[0] ?? ''
    const lane = lanes[column % lanes.length]?.key ?? ''
    return {
      day,
      lane,
      minute: y < top.bottom ? null : Math.min(1440, Math.max(0, scale.minute(y - box.top))),
    }
  }

  const byKey = useMemo(() => new Map(bricks.map((brick) => [brickKey(brick), brick])), [bricks])
  const hand = useHand({
    zone,
    length: preferences.eventMinutes,
    placeAt,
    find: (key) => byKey.get(key),
    bricks,
    ...acts,
  })
  const carried = hand.ghost ? asNew(hand.ghost) : draft
  const carriedLane = hand.ghost?.lane ?? draftLane
  useLeftBehind(hand.held ?? (hand.ghost ? null : draft && brickKey(draft)))

  const bars = useMemo(
    () => lanes.map((lane) => barsOf(lanes.length === 1 ? bricks : bricks.filter(lane.holds), days, zone)),
    [lanes, bricks, days, zone],
  )
  const timed = useMemo(() => timedByDay(bricks, days, zone), [bricks, days, zone])
  const laneOf = (brick: EventBrick) =>
    Math.max(
      0,
      lanes.findIndex((lane) => lane.key === carriedLane) >= 0
        ? lanes.findIndex((lane) => lane.key === carriedLane)
        : lanes.findIndex((lane) => lane.holds(brick)),
    )
  const carriedPieces = carried ? piecesOf([carried], days, zone) : []
  const carriedBars = carried ? barsOf([carried], days, zone) : []
  // A person's lane of one day is too narrow for bars across days: there, each lane has its own.
  const barLanes =
    Math.max(0, ...bars.flatMap((lane) => lane.map((bar) => bar.lane + 1))) + (carriedBars.length > 0 ? 1 : 0)
  const grid = { gridTemplateColumns: `repeat(${days.length}, minmax(0, 1fr))` }
  // While something is in the hand only it is drawn anew, however many bricks lie around it.
  const barsLaid = useMemo(
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
  const isToday = (day: string) => day === dateOf(now)

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
      {...hand.handlers}
    >
      <div className={`${abreast} flex border-b border-cement-200 bg-cement-50`} style={kept}>
        <Corner second={preferences.secondZone} day={days[0] ?? ''} zone={zone} />
        <div className="grid flex-1" style={grid}>
          {days.map((day) => (
            <div key={day} className="min-w-0 border-r border-cement-200">
              <h2
                data-today={isToday(day)}
                className="truncate px-2 py-1.5 font-text text-[13px] data-[today=true]:bg-ink data-[today=true]:text-on-ink"
                title={longDayText(day)}
              >
                {dayText(day)}
                {isToday(day) && <span className="font-normal"> today</span>}
              </h2>
              {lanes.length > 1 && (
                <div className="flex border-t border-cement-200">
                  {lanes.map((lane) => (
                    <span
                      key={lane.key}
                      title={lane.name}
                      className="written min-w-0 flex-1 truncate border-r border-cement-200 px-1.5 py-0.5 text-[11px] text-cement-700 last:border-r-0"
                    >
                      {lane.name}
                    </span>
                  ))}
                </div>
              )}
            </div>
          ))}
        </div>
      </div>

      <div
        className={`${abreast} flex border-b-2 border-cement-300 bg-cement-50`}
        style={kept}
        data-all-day="true"
      >
        <div
          className={`${staying} w-13 shrink-0 border-r bg-cement-50 border-cement-200 py-1.5 pr-1.5 text-right text-[11px] text-cement-600`}
        >
          all day
        </div>
        <div
          ref={whole}
          className="relative grid flex-1"
          style={{ ...grid, height: Math.max(1, barLanes) * barHeight + 10 }}
        >
          <Columns days={days} now={now} lanes={lanes.length} />
          {barsLaid}
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
                    style={barStyle(
                      { ...bar, lane: barLanes - 1 },
                      days.length,
                      carried ? laneOf(carried) : 0,
                      lanes.length,
                    )}
                  />
                )
              )
            })}
          </div>
        </div>
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
          <div ref={hours} className="relative grid flex-1" style={grid} data-hours="true">
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
                      style={pieceStyle(
                        piece,
                        days.length,
                        carried ? laneOf(carried) : 0,
                        lanes.length,
                        scale,
                      )}
                    />
                  )
                )
              })}
            </div>
            {pointed && <Pointed days={days} pointed={pointed} scale={scale} />}
            <NowLine days={days} now={now} scale={scale} />
          </div>
        </div>
      </div>
    </section>
  )
}

const percent = (part: number, whole: number) => `${(part / whole) * 100}%`

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

function Columns({
  days,
  now,
  lanes,
  cells,
}: {
  days: readonly string[]
  now: string
  lanes: number
  cells?: { lanes: readonly Lane[]; onPlace: (day: string, lane: string) => void }
}) {
  return (
    <>
      {days.map((day) => (
        <div
          key={day}
          data-weekend={isWeekend(day)}
          data-past={day < dateOf(now)}
          className="flex border-r border-cement-200 data-[weekend=true]:bg-cement-100"
        >
          {(
            cells?.lanes ?? Array.from({ length: lanes }, (_, index) => ({ key: String(index), name: '' }))
          ).map((lane) =>
            cells ? (
              // The day itself can be reached by Tab, so that Enter makes something in it.
              <div
                key={lane.key}
                className="relative min-w-0 flex-1 border-r border-cement-100 last:border-r-0"
              >
                <button
                  type="button"
                  data-cell={day}
                  onClick={(press) => {
                    if (press.detail === 0) cells.onPlace(day, lane.key)
                  }}
                  className="absolute inset-x-0 top-0 z-1 -translate-y-full bg-ink px-1 text-[11px] text-on-ink opacity-0 focus-visible:translate-y-0 focus-visible:opacity-100"
                >
                  New on {longDayText(day)}
                  {lane.name && `, ${lane.name}`}
                </button>
              </div>
            ) : (
              <div key={lane.key} className="min-w-0 flex-1 border-r border-cement-100 last:border-r-0" />
            ),
          )}
        </div>
      ))}
    </>
  )
}

export const isWeekend = (day: string) => [0, 6].includes(new Date(`${day}T00:00:00Z`).getUTCDay())

/** What is folded away: set back, so that nobody takes it for a morning. */
function Night({ scale }: { scale: Scale }) {
  if (!scale.folded) return null
  const band = 'night pointer-events-none absolute inset-x-0'
  return (
    <>
      <div aria-hidden="true" className={band} style={{ top: 0, height: scale.y(scale.opens) }} />
      <div aria-hidden="true" className={band} style={{ top: scale.y(scale.closes), bottom: 0 }} />
    </>
  )
}

function HourLines({ scale }: { scale: Scale }) {
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

function Corner({ second, zone }: { second: string | null; day: string; zone: string }) {
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

function HourNames({
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

/** The time that is asked about: a frame around it. */
function Pointed({
  days,
  pointed,
  scale,
}: {
  days: readonly string[]
  pointed: { start: string; end: string }
  scale: Scale
}) {
  const day = days.indexOf(dateOf(pointed.start))
  if (day < 0) return null
  const top = scale.y(minuteOf(pointed.start))
  const end = dateOf(pointed.end) === dateOf(pointed.start) ? minuteOf(pointed.end) : 1440
  return (
    <div
      className="pointer-events-none absolute z-3 border-2 border-ink"
      style={{
        left: percent(day, days.length),
        width: percent(1, days.length),
        top,
        height: Math.max(6, scale.y(end) - top),
      }}
      data-pointed="true"
    />
  )
}

function NowLine({ days, now, scale }: { days: readonly string[]; now: string; scale: Scale }) {
  const day = days.indexOf(dateOf(now))
  if (day < 0) return null
  return (
    <div
      className="pointer-events-none absolute z-3 h-0.5 bg-ink"
      style={{ left: percent(day, days.length), width: percent(1, days.length), top: scale.y(minuteOf(now)) }}
      data-now="true"
    >
      <span className="absolute -top-[3px] -left-1 size-2 bg-ink" />
    </div>
  )
}
