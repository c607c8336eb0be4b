import { ArrowDownAZ, Pin, PinOff } from 'lucide-react'
import { type KeyboardEvent, memo, useMemo, useRef, useState } from 'react'
import type { CoverAnswer, Gap } from '../model/availabilityQueries'
import { brickKey, type EventBrick } from '../model/bricks'
import { dateOf, daysOf } from '../model/times'
import { dayText, longDayText } from '../reader/dates'
import { BrickButton, type BrickPlace, endsOf } from './BrickButton'
import { CoverRow } from './CoverRow'
import { fitsForSure } from './fit'
import { barsOf } from './geometry'
import { linesOf, type RosterLine, type RosterRow } from './roster'
import { TogetherRow } from './TogetherRow'
import { type Place, useHand } from './useHand'
import { useLeftBehind } from './useLeftBehind'
import { useWidth } from './useWidth'
import type { ViewProps } from './viewProps'
import { isWeekend } from './WeekView'

interface RosterViewProps extends ViewProps {
  rows: readonly RosterRow[]
  zone: string
  /** What all the people in view have in common; undefined while it is not known, null where it is not asked for. */
  together: readonly Gap[] | undefined | null
  /** Who is there day by day; empty where no number is set. */
  cover: CoverAnswer | undefined
  names: ReadonlyMap<string, string>
  /** Keys of rows that stay on top. */
  pinned: readonly string[]
  onPin: (key: string) => void
}

const barHeight = 21

/** A row for everybody, each member and each place; a column a day. The coordinator's home. */
export function RosterView({
  days,
  now,
  zone,
  rows,
  bricks,
  layers,
  face,
  carried: draft,
  draftLane,
  hand: acts,
  asNew,
  together,
  cover,
  names,
  onLit,
  onPlace,
  pinned,
  onPin,
}: RosterViewProps) {
  const grid = useRef<HTMLDivElement>(null)
  const widthPx = useWidth(grid)
  const [filter, setFilter] = useState('')
  const [byLoad, setByLoad] = useState(false)
  const [cursor, setCursor] = useState({ row: 0, day: 0 })

  const placeAt = (x: number, y: number): Place | null => {
    const cell = document
      .elementsFromPoint(x, y)
      .map((one) => one.closest('[data-cell]'))
      .find((one) => one !== null)
    const day = cell?.getAttribute('data-cell')
    return cell && day ? { day, minute: null, lane: cell.getAttribute('data-row') ?? '' } : null
  }
  const byKey = useMemo(() => new Map(bricks.map((brick) => [brickKey(brick), brick])), [bricks])
  const hand = useHand({ zone, length: 60, placeAt, find: (key) => byKey.get(key), bricks, ...acts })
  const carried = hand.ghost ? asNew(hand.ghost) : draft
  const carriedRow = hand.ghost?.lane ?? draftLane
  const replaced = hand.held ?? (hand.ghost ? null : draft && brickKey(draft))
  useLeftBehind(replaced)

  const lines = useMemo(() => linesOf(rows, bricks, layers, days, zone), [rows, bricks, layers, days, zone])
  const shown = useMemo(() => {
    const words = filter.trim().toLowerCase()
    const kept = lines.filter(
      (line) => words === '' || line.row.name.toLowerCase().includes(words) || pinned.includes(line.row.key),
    )
    const load = (line: (typeof lines)[number]) =>
      line.bars.length + line.cells.reduce((sum, cell) => sum + cell.length, 0)
    const sorted = byLoad ? kept.toSorted((a, b) => load(b) - load(a)) : kept
    return [
      ...sorted.filter((line) => pinned.includes(line.row.key)),
      ...sorted.filter((line) => !pinned.includes(line.row.key)),
    ]
  }, [lines, filter, byLoad, pinned])
  const columns = { gridTemplateColumns: `repeat(${days.length}, minmax(0, 1fr))` }

  const move = (event: KeyboardEvent) => {
    const at = (event.target as HTMLElement).closest<HTMLElement>('[data-cell]')
    if (!at || event.target !== at) return
    const by = { ArrowLeft: [0, -1], ArrowRight: [0, 1], ArrowUp: [-1, 0], ArrowDown: [1, 0] }[event.key]
    if (event.key === 'Enter') {
      event.preventDefault()
      onPlace(at.dataset.cell ?? '', at.dataset.row ?? '')
      return
    }
    if (!by) return
    event.preventDefault()
    const next = {
      row: Math.min(shown.length - 1, Math.max(0, cursor.row + (by[0] ?? 0))),
      day: Math.min(days.length - 1, Math.max(0, cursor.day + (by[1] ?? 0))),
    }
    setCursor(next)
    grid.current
      ?.querySelector<HTMLElement>(`[data-at="${next.row}/${next.day}"]`)
      ?.focus({ preventScroll: false })
  }

  return (
    <section
      aria-label="Wall"
      className="flex min-h-0 min-w-0 flex-1 flex-col bg-surface select-none"
      {...hand.handlers}
    >
      <div className="min-h-0 flex-1 overflow-auto" data-scroller="true">
        {/* biome-ignore lint/a11y/useSemanticElements: a table cannot lay bars across its cells */}
        <div
          ref={grid}
          role="grid"
          aria-label="Roster"
          onKeyDown={move}
          className="flex min-h-full min-w-fit flex-col"
        >
          {/* biome-ignore lint/a11y/useSemanticElements: as above */}
          {/* biome-ignore lint/a11y/useFocusableInteractive: the cells take the focus */}
          <div role="row" className="sticky top-0 z-6 flex border-b border-cement-300 bg-cement-50">
            {/* biome-ignore lint/a11y/useSemanticElements: as above */}
            {/* biome-ignore lint/a11y/useFocusableInteractive: as above */}
            <div
              role="columnheader"
              className="sticky left-0 z-7 flex w-36 shrink-0 items-center gap-1 border-r border-cement-200 bg-cement-50 px-1.5 max-sm:w-28"
            >
              <input
                aria-label="Filter rows"
                placeholder="Filter"
                value={filter}
                onChange={(event) => setFilter(event.target.value)}
                className="w-full min-w-0 rounded-control border border-cement-300 bg-surface px-1.5 py-0.5 text-[12px]"
              />
              <button
                type="button"
                aria-pressed={byLoad}
                aria-label="Fullest rows first"
                title="Fullest rows first"
                onClick={() => setByLoad(!byLoad)}
                className="grid size-6 shrink-0 place-items-center rounded-control hover:bg-cement-200 aria-pressed:bg-ink aria-pressed:text-on-ink"
              >
                <ArrowDownAZ size={14} aria-hidden="true" />
              </button>
            </div>
            <div className="grid flex-1" style={columns}>
              {days.map((day) => (
                // biome-ignore lint/a11y/useSemanticElements: as above
                // biome-ignore lint/a11y/useFocusableInteractive: as above
                <div
                  key={day}
                  role="columnheader"
                  data-today={day === dateOf(now)}
                  title={longDayText(day)}
                  className="min-w-16 truncate border-r border-cement-200 px-2 py-1.5 text-[13px] font-bold data-[today=true]:bg-ink data-[today=true]:text-on-ink"
                >
                  {dayText(day)}
                  {day === dateOf(now) && <span className="font-normal"> today</span>}
                </div>
              ))}
            </div>
          </div>
          {shown.map((line, index) => {
            const isCarriedHere = carried !== null && carriedRow === line.row.key
            return (
              <Line
                key={line.row.key}
                line={line}
                index={index}
                days={days}
                dayPx={Math.round((widthPx - 144) / days.length) - 9}
                zone={zone}
                face={face}
                carried={isCarriedHere ? carried : null}
                inHand={hand.ghost !== null}
                replaced={isCarriedHere && hand.ghost === null ? replaced : null}
                cursor={cursor.row === index ? cursor.day : null}
                isPinned={pinned.includes(line.row.key)}
                onPin={onPin}
                onCursor={setCursor}
              />
            )
          })}
          <div className="sticky bottom-0 z-6">
            {together !== null && (
              <TogetherRow days={days} gaps={together} today={dateOf(now)} onLit={onLit} />
            )}
            {cover?.needs.map((need, index) => (
              <CoverRow key={need.name} days={days} cover={cover} need={index} names={names} />
            ))}
          </div>
        </div>
      </div>
    </section>
  )
}

interface LineProps {
  line: RosterLine
  index: number
  days: readonly string[]
  /** How wide the words of a day may be. */
  dayPx: number
  zone: string
  face: ViewProps['face']
  /** What would lie in this row. */
  carried: EventBrick | null
  /** Whether that is in the hand, and so lies over the others instead of moving them aside. */
  inHand: boolean
  replaced: string | null
  /** The day the cell cursor is on, where it is in this row. */
  cursor: number | null
  isPinned: boolean
  onPin: (key: string) => void
  onCursor: (cursor: { row: number; day: number }) => void
}

/** One row. Drawn anew only when something in it changes, however much is carried elsewhere. */
const Line = memo(function Line({
  line: { row, bars, lanes, cells },
  index,
  days,
  dayPx,
  zone,
  face,
  carried,
  inHand,
  replaced,
  cursor,
  isPinned,
  onPin,
  onCursor,
}: LineProps) {
  const columns = { gridTemplateColumns: `repeat(${days.length}, minmax(0, 1fr))` }
  const bar = carried ? barsOf([carried], days, zone) : []
  const carriedDays = carried ? daysOf(carried.time) : null
  const carriedBars = inHand ? [] : bar
  // Only the days under a bar make room for it, and not while it is in the hand: then it lies over all.
  const top = (column: number) =>
    barHeight *
    Math.max(
      0,
      ...bars.filter((bar) => bar.first <= column && column <= bar.last).map((bar) => bar.lane + 1),
      ...carriedBars.filter((bar) => bar.first <= column && column <= bar.last).map(() => lanes + 1),
    )
  return (
    // biome-ignore lint/a11y/useSemanticElements: as above
    // biome-ignore lint/a11y/useFocusableInteractive: as above
    <div
      role="row"
      data-kind={row.kind}
      className="group flex min-h-12 flex-[1_0_auto] border-b border-cement-200 data-[kind=everyone]:bg-cement-50"
    >
      {/* biome-ignore lint/a11y/useSemanticElements: as above */}
      {/* biome-ignore lint/a11y/useFocusableInteractive: as above */}
      <div
        role="rowheader"
        className="sticky left-0 z-4 flex w-36 shrink-0 items-start border-r border-cement-200 bg-cement-50 px-2 py-1.5 max-sm:w-28"
      >
        <span className="min-w-0 flex-1">
          <span className="written block leading-tight font-bold">{row.name}</span>
          <span className="written block text-[11px] text-cement-700">{row.note}</span>
        </span>
        <button
          type="button"
          aria-label={`${isPinned ? 'Let go' : 'Pin'} ${row.name}`}
          onClick={() => onPin(row.key)}
          data-pinned={isPinned}
          className="grid size-5 shrink-0 place-items-center rounded-control text-cement-600 opacity-0 max-sm:hidden group-hover:opacity-100 hover:bg-cement-200 focus-visible:opacity-100 data-[pinned=true]:opacity-100"
        >
          {isPinned ? <PinOff size={12} aria-hidden="true" /> : <Pin size={12} aria-hidden="true" />}
        </button>
      </div>
      <div className="relative grid flex-1" style={columns}>
        {days.map((day, column) => (
          // biome-ignore lint/a11y/useSemanticElements: as above
          <div
            key={day}
            role="gridcell"
            tabIndex={cursor === column ? 0 : -1}
            data-at={`${index}/${column}`}
            data-cell={day}
            data-row={row.key}
            data-weekend={isWeekend(day)}
            onFocus={() => onCursor({ row: index, day: column })}
            className="grid min-w-16 content-start gap-px border-r border-cement-200 px-[3px] pb-4 data-[weekend=true]:bg-cement-100/70"
            style={{ paddingTop: top(column) + 3 }}
          >
            <span className="sr-only">
              {row.name}, {longDayText(day)}
            </span>
            {cells[column]?.map((brick) => {
              const shared = face(brick)
              const isUnderHand =
                brickKey(brick) === replaced &&
                carriedDays !== null &&
                carriedDays.first <= day &&
                day <= carriedDays.last
              return (
                shared && (
                  <BrickButton
                    key={brickKey(brick)}
                    {...shared}
                    flat={false}
                    under={isUnderHand}
                    fits={fitsForSure(brick, shared.state.whose, dayPx, 1)}
                  />
                )
              )
            })}
            {carried &&
              !inHand &&
              carriedBars.length === 0 &&
              carriedDays &&
              carriedDays.first <= day &&
              day <= carriedDays.last && <Carried props={face(carried)} place={undefined} />}
            {bars
              .filter((bar) => bar.first === column)
              .map((bar) => {
                const shared = face(bar.brick)
                return (
                  shared && (
                    <BrickButton
                      key={bar.key}
                      {...shared}
                      flat
                      edges={endsOf(bar, 'left', 'right')}
                      style={barStyle(bar.first, bar.last, bar.lane, days.length)}
                    />
                  )
                )
              })}
            {carriedBars
              .filter((bar) => bar.first === column)
              .map((bar) => {
                const shared = face(bar.brick)
                return (
                  shared && (
                    <BrickButton
                      key="carried"
                      {...shared}
                      flat
                      hand="carried"
                      style={barStyle(bar.first, bar.last, lanes, days.length)}
                    />
                  )
                )
              })}
          </div>
        ))}
        {carried && inHand && (
          <div className="pointer-events-none absolute inset-0 z-5 contain-layout contain-size contain-style">
            {(bar.length > 0
              ? bar
              : days.flatMap((day, column) =>
                  carriedDays && carriedDays.first <= day && day <= carriedDays.last
                    ? [{ key: day, first: column, last: column }]
                    : [],
                )
            ).map(({ key, first, last }) => (
              <Carried key={key} props={face(carried)} place={barStyle(first, last, 0, days.length)} />
            ))}
          </div>
        )}
      </div>
    </div>
  )
})

const Carried = ({
  props,
  place,
}: {
  props: ReturnType<ViewProps['face']>
  place: BrickPlace | undefined
}) => (props ? <BrickButton {...props} flat={place !== undefined} hand="carried" style={place} /> : null)

const barStyle = (first: number, last: number, lane: number, days: number) => ({
  left: `calc(${(first / days) * 100}% + 3px)`,
  width: `calc(${((last - first + 1) / days) * 100}% - 7px)`,
  top: lane * barHeight + 3,
  height: barHeight - 2,
})
