import { useLayoutEffect, useMemo, useRef } from 'react'
import type { CoverAnswer, Gap } from '../../model/availabilityQueries'
import { dateOf } from '../../model/times'
import { cellAt } from '../hand/cellAt'
import { useViewHand } from '../hand/useViewHand'
import { useWidth } from '../useWidth'
import type { ViewProps } from '../viewProps'
import { CoverRow } from './CoverRow'
import { RosterHead } from './RosterHead'
import { RosterLine } from './RosterLine'
import { linesOf, type RosterRow } from './roster'
import { TogetherRow } from './TogetherRow'
import { useCells } from './useCells'
import { useRosterOrder } from './useRosterOrder'

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
  /** Whether it is a phone's, on which three days are in sight; and the day that is among them at first. */
  narrow: boolean
  date: string
}

/** A row for everybody, each member and each place; a column a day. The coordinator's home. */
export function RosterView({
  rows,
  zone,
  together,
  cover,
  names,
  pinned,
  onPin,
  narrow,
  date,
  ...view
}: RosterViewProps) {
  const { days, now, bricks, layers, face, onLit, onPlace } = view
  const grid = useRef<HTMLDivElement>(null)
  const widthPx = useWidth(grid)
  const scroller = useRef<HTMLDivElement>(null)
  // On a phone not all days are in sight: the one that is meant is, beside the names.
  useLayoutEffect(() => {
    const head = grid.current?.querySelector<HTMLElement>(`[data-day="${date}"]`)
    const first = grid.current?.querySelector<HTMLElement>('[data-day]')
    if (narrow && head && first && scroller.current)
      scroller.current.scrollLeft = head.offsetLeft - first.offsetLeft
  }, [narrow, date])
  const { handlers, carried, carriedLane, isInHand, replaced } = useViewHand(view, cellAt)
  const lines = useMemo(() => linesOf(rows, bricks, layers, days, zone), [rows, bricks, layers, days, zone])
  const order = useRosterOrder(lines, pinned)
  const { shown } = order
  const { cursor, setCursor, onKeyDown } = useCells(grid, shown.length, days.length, onPlace)

  return (
    <section
      aria-label="Wall"
      className="flex min-h-0 min-w-0 flex-1 flex-col bg-surface select-none"
      {...handlers}
    >
      <div ref={scroller} className="relative min-h-0 flex-1 overflow-auto" data-scroller="true">
        {/* biome-ignore lint/a11y/useSemanticElements: a table cannot lay bars across its cells */}
        <div
          ref={grid}
          role="grid"
          aria-label="Roster"
          onKeyDown={onKeyDown}
          className="flex min-h-full min-w-fit flex-col"
        >
          <RosterHead days={days} now={now} order={order} />
          {shown.map((line, index) => {
            const isCarriedHere = carried !== null && carriedLane === line.row.key
            return (
              <RosterLine
                key={line.row.key}
                line={line}
                index={index}
                days={days}
                dayPx={Math.round((widthPx - 144) / days.length) - 9}
                zone={zone}
                face={face}
                carried={isCarriedHere ? carried : null}
                inHand={isInHand}
                replaced={isCarriedHere && !isInHand ? replaced : null}
                cursor={cursor.row === index ? cursor.day : null}
                isPinned={pinned.includes(line.row.key)}
                onPin={onPin}
                onCursor={setCursor}
              />
            )
          })}
          <div className="sticky bottom-0 z-6" data-under="true">
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
