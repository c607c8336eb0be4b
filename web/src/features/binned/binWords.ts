import { clockText, longDayText } from '../../reader/dates'
import type { BinEntry } from './binQueries'

/** How many dates are named before the rest is counted. */
const named = 4

const nameOf = (title: string) => (title === '' ? 'Untitled' : title)

/** What waits, as the head of its entry. */
export function headOf(entry: BinEntry): string {
  const { place, count, things } = entry
  const title = nameOf(things[0]?.title ?? '')
  switch (place.kind) {
    case 'calendar':
      return entry.calendarName ?? ''
    case 'group':
      return entry.groupName
    case 'dates':
      return `${title}, ${datesText(entry)}`
    case 'proposal':
      return `${title}, ${count} proposed times`
    default:
      return count === 1 ? title : `${count} events`
  }
}

/** The dates that were taken out of a series: "Thu 19 March and Thu 26 March", "from Thu 19 March on". */
export function datesText({ dates, from }: Pick<BinEntry, 'dates' | 'from'>): string {
  const days = dates.map(({ start }) => longDayText(start))
  const told = days.length > named ? [...days.slice(0, named), `${days.length - named} more`] : days
  const all = [...told, ...(from ? [`from ${longDayText(from)} on`] : [])]
  return all.length > 1 ? `${all.slice(0, -1).join(', ')} and ${all.at(-1)}` : (all[0] ?? '')
}

/** What is said when it is back. */
export function backText(
  { place, count, things, calendarName, groupName }: BinEntry,
  returned: number,
): string {
  const title = nameOf(things[0]?.title ?? '')
  switch (place.kind) {
    case 'group':
      return `“${groupName}” is back, with its calendars and everybody in it.`
    case 'calendar':
      return `“${calendarName}” is back, with everybody who had access.`
    case 'dates':
      return returned === 1 ? `The date of “${title}” is back.` : `${returned} dates of “${title}” are back.`
    case 'proposal':
      return `The times of “${title}” are proposed again.`
    default:
      return count === 1 || returned === 1
        ? `“${title}” is back in ${calendarName}.`
        : `${returned} events are back in ${calendarName}.`
  }
}

/** A start as a button says it: "Thu 12 March, 18:00". */
export const startText = (local: string) => `${longDayText(local)}, ${clockText(local)}`

/** Whether an entry has to do with what is looked for. */
export function fits(entry: BinEntry, sought: string): boolean {
  const words = sought.trim().toLowerCase()
  const texts = [
    entry.calendarName ?? '',
    entry.groupName,
    entry.deletedBy,
    ...entry.things.map(({ title }) => title),
  ]
  return words === '' || texts.some((text) => text.toLowerCase().includes(words))
}
