import { useMemo } from 'react'
import { dateOf } from '../../model/times'
import { dayText, longDayText, weekdayText } from '../../reader/dates'
import { useReader } from '../../reader/person'
import { MarkSign } from '../../ui/MarkSign'
import { AgendaList } from '../agenda/AgendaList'
import { LightStrips } from '../bricks/Lights'
import { bricksOfDays } from '../read/bricksOfDays'
import type { ViewProps } from '../viewProps'
import { Fullness } from '../week/WeekStrip'

interface PhoneMonthProps extends ViewProps {
  zone: string
  month: string
  /** The day whose list stands under the month. */
  chosen: string
  names: ReadonlyMap<string, string>
  onChoose: (day: string) => void
}

/** How many marks a day has room for. */
const mostMarks = 4

/** A month on a phone: each day with the marks of what lies on it and how full it is, and the list of the day that is chosen. */
export function PhoneMonth({ zone, month, chosen, names, onChoose, ...view }: PhoneMonthProps) {
  const { days, now, bricks, face, lit, onLit, onPlace } = view
  const { isWeekend } = useReader()
  const byDay = useMemo(() => bricksOfDays(bricks, days, zone), [bricks, days, zone])
  const most = Math.max(1, ...[...byDay.values()].map((one) => one.length))
  const onChosen = byDay.get(chosen) ?? []
  return (
    <section
      aria-label="Wall"
      className="min-h-0 min-w-0 flex-1 overflow-y-auto bg-surface"
      data-scroller="true"
    >
      <div className="grid grid-cols-7 border-b border-cement-300 bg-cement-50">
        {days.slice(0, 7).map((day) => (
          <span key={day} aria-hidden="true" className="py-1 text-center text-[12px] text-cement-700">
            {weekdayText(day)}
          </span>
        ))}
        {days.map((day) => {
          const here = byDay.get(day) ?? []
          const layers = [...new Set(here.map((brick) => face(brick)?.layer))].filter(
            (one) => one !== undefined,
          )
          return (
            <button
              key={day}
              type="button"
              data-cell={day}
              aria-pressed={day === chosen}
              aria-label={`${longDayText(day)}, ${countText(here.length)}`}
              data-today={day === dateOf(now)}
              data-weekend={isWeekend(day)}
              data-other={!day.startsWith(month)}
              onClick={() => onChoose(day)}
              className="group grid h-13 content-start justify-items-center gap-1 border-t border-cement-200 bg-surface pt-1 aria-pressed:outline-2 aria-pressed:-outline-offset-2 aria-pressed:outline-ink data-[other=true]:bg-cement-100 data-[weekend=true]:bg-cement-100"
            >
              <span className="rounded-control px-1 leading-tight font-bold group-data-[other=true]:font-normal group-data-[other=true]:text-cement-700 group-data-[today=true]:bg-ink group-data-[today=true]:text-on-ink">
                {Number(day.slice(8))}
              </span>
              <span className="flex h-2.5 gap-px" aria-hidden="true">
                {layers.slice(0, mostMarks).map(({ calendarId, hue, mark }) => (
                  <span key={calendarId} data-hue={hue} className="text-layer-edge">
                    <MarkSign mark={mark} size={10} />
                  </span>
                ))}
              </span>
              {here.length > 0 && <Fullness share={here.length / most} />}
            </button>
          )
        })}
      </div>
      <div className="px-3 py-3">
        <div className="mb-1 flex items-center justify-between gap-2">
          <h2 className="text-base">
            {longDayText(chosen)}
            {chosen === dateOf(now) && <span className="ml-2 font-text text-[12px] font-normal">today</span>}
          </h2>
          <button
            type="button"
            onClick={() => onPlace(chosen, '')}
            className="min-h-11 rounded-control border border-cement-500 px-3"
          >
            New<span className="sr-only"> on {dayText(chosen)}</span>
          </button>
        </div>
        {onChosen.length === 0 && <p className="text-cement-700">Nothing on this day.</p>}
        <LightStrips day={chosen} gaps={lit} most={6} onLit={onLit} />
        <AgendaList days={[chosen]} now={now} zone={zone} bricks={onChosen} face={face} names={names} bare />
      </div>
    </section>
  )
}

const countText = (count: number): string =>
  count === 0 ? 'nothing' : count === 1 ? 'one event' : `${count} events`
