import { Pin, PinOff } from 'lucide-react'
import { memo } from 'react'
import { brickKey, type EventBrick } from '../../model/bricks'
import { daysOf } from '../../model/times'
import { longDayText } from '../../reader/dates'
import { useReader } from '../../reader/person'
import { BrickButton, type BrickPlace, endsOf } from '../bricks/BrickButton'
import { fitsForSure } from '../hand/fit'
import { barsOf } from '../hand/geometry'
import type { ViewProps } from '../viewProps'
import { columnsOf } from './columnsOf'
import type { RosterLine as Laid } from './roster'

const barHeight = 21

interface RosterLineProps {
  line: Laid
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
export const RosterLine = memo(function RosterLine({
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
}: RosterLineProps) {
  const { isWeekend } = useReader()
  const columns = columnsOf(days)
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
      <RowName row={row} isPinned={isPinned} onPin={onPin} />
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
            className="grid min-w-0 content-start gap-px border-r border-cement-200 px-[3px] pb-4 data-[weekend=true]:bg-cement-100/70"
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

function RowName({
  row,
  isPinned,
  onPin,
}: Pick<RosterLineProps, 'isPinned' | 'onPin'> & { row: Laid['row'] }) {
  return (
    // biome-ignore lint/a11y/useSemanticElements: as above
    // biome-ignore lint/a11y/useFocusableInteractive: as above
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
        className="grid size-6 shrink-0 place-items-center rounded-control text-cement-600 opacity-0 max-sm:hidden group-hover:opacity-100 hover:bg-cement-200 focus-visible:opacity-100 data-[pinned=true]:opacity-100"
      >
        {isPinned ? <PinOff size={12} aria-hidden="true" /> : <Pin size={12} aria-hidden="true" />}
      </button>
    </div>
  )
}

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
