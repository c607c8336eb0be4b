import type { CoverAnswer } from '../../model/availabilityQueries'
import { hoursText, needText } from '../../model/needText'
import { longDayText } from '../../reader/dates'
import { columnsOf } from './columnsOf'

interface CoverRowProps {
  days: readonly string[]
  cover: CoverAnswer
  /** Which of what the group needs. */
  need: number
  names: ReadonlyMap<string, string>
}

/** A row at the end of the roster: how many are there against how many are needed, where a number is set. */
export function CoverRow({ days, cover, need, names }: CoverRowProps) {
  const byDay = new Map(cover.days.map((one) => [one.day, one]))
  const its = cover.needs[need]
  const called = (its && needText(its)) || 'Cover'
  return (
    // biome-ignore lint/a11y/useSemanticElements: a table cannot lay bars across its cells
    // biome-ignore lint/a11y/useFocusableInteractive: it is read, not used
    <div role="row" data-kind="cover" className="flex min-h-7 border-t border-cement-200 bg-cement-50">
      {/* biome-ignore lint/a11y/useSemanticElements: as above */}
      {/* biome-ignore lint/a11y/useFocusableInteractive: as above */}
      <div
        role="rowheader"
        className="sticky left-0 z-7 w-36 shrink-0 border-r border-cement-200 bg-cement-50 px-2 py-1 max-sm:w-28"
      >
        <span className="block truncate font-bold" title={called}>
          {its?.name || 'Cover'}
        </span>
        {its && its.begins !== null && (
          <span className="block text-[12px] leading-tight text-cement-700">{hoursText(its)}</span>
        )}
      </div>
      <div className="grid flex-1" style={columnsOf(days)}>
        {days.map((day) => {
          const one = byDay.get(day)
          const met = one?.needs[need]
          const nameOf = (id: string) => names.get(id) ?? 'somebody'
          const away = [
            ...(one?.missing ?? []).map(nameOf),
            ...(one?.awayBeforeNoon ?? []).map((id) => `${nameOf(id)} until noon`),
            ...(one?.awayAfterNoon ?? []).map((id) => `${nameOf(id)} from noon`),
          ]
          return (
            // biome-ignore lint/a11y/useSemanticElements: as above
            // biome-ignore lint/a11y/useFocusableInteractive: as above
            <div
              key={day}
              role="gridcell"
              data-low={(met?.tooFew ?? 0) > 0}
              title={away.length > 0 ? `Away: ${away.join(', ')}` : undefined}
              className="min-w-0 truncate border-r border-cement-200 px-2 py-1 data-[low=true]:bg-clash data-[low=true]:font-bold data-[low=true]:text-surface"
            >
              <span className="sr-only">
                {called}, {longDayText(day)}:{' '}
              </span>
              {met && met.needed > 0 && (
                <>
                  {met.there} of {met.needed}
                  <span className="sr-only">
                    {met.tooFew > 0 && ', too few'}
                    {away.length > 0 && `, away: ${away.join(', ')}`}
                  </span>
                </>
              )}
            </div>
          )
        })}
      </div>
    </div>
  )
}
