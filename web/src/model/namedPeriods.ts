import { addDays } from './times'
import { weekStart } from './views'

export interface DayRange {
  from: string
  to: string
}

/** A period after one of its ends was changed: the other follows where it would come first. */
export const inOrder = (range: DayRange, changed: keyof DayRange): DayRange =>
  range.from <= range.to ? range : { from: range[changed], to: range[changed] }

/** The periods people ask for by name, around a day. */
export function namedPeriods(today: string, firstDay: number): readonly (DayRange & { label: string })[] {
  const week = weekStart(today, firstDay)
  const month = Temporal.PlainDate.from(today).with({ day: 1 })
  const monthOf = (first: Temporal.PlainDate) => ({
    from: first.toString(),
    to: first.add({ months: 1 }).subtract({ days: 1 }).toString(),
  })
  return [
    { label: 'This week', from: week, to: addDays(week, 6) },
    { label: 'Next week', from: addDays(week, 7), to: addDays(week, 13) },
    { label: 'This month', ...monthOf(month) },
    { label: 'Last month', ...monthOf(month.subtract({ months: 1 })) },
    { label: 'Next month', ...monthOf(month.add({ months: 1 })) },
    { label: 'This year', from: `${month.year}-01-01`, to: `${month.year}-12-31` },
  ]
}
