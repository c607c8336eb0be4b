import { ProblemError } from '../../api/problem'
import type { DayRange } from '../../model/namedPeriods'

/** What there are spreadsheets of. */
export const kinds = [
  { value: 'events', label: 'Events', hint: 'A row an occurrence, with dates, times and how long it lasts.' },
  { value: 'roster', label: 'Roster', hint: 'People and places down, days across. Up to three months.' },
  {
    value: 'hours',
    label: 'Hours',
    hint: 'Of each person by week and kind, on the calendars of the group; what overlaps counts once.',
  },
  {
    value: 'absences',
    label: 'Absences',
    hint: 'A row each with what it costs in working days, and a grid for each month.',
  },
  {
    value: 'absence-days',
    label: 'Absences, only the grid',
    hint: 'People down, days across: 1 for a day, 0.5 for a half.',
  },
  { value: 'access', label: 'Who has what', hint: 'For who coordinates: people down, calendars across.' },
] as const

export interface SpreadsheetWish extends DayRange {
  what: (typeof kinds)[number]['value']
  group: string
  form: 'xlsx' | 'csv'
}

/** Has a spreadsheet made and hands it over as a file; what is refused is thrown. */
export async function saveSpreadsheet(wish: SpreadsheetWish, signal: AbortSignal): Promise<string> {
  const search = new URLSearchParams({ from: wish.from, to: wish.to, group: wish.group })
  const answer = await fetch(`/api/spreadsheets/${wish.what}.${wish.form}?${search}`, { signal })
  if (!answer.ok) throw ProblemError.from(await answer.json().catch(() => null), answer.status)
  const address = URL.createObjectURL(await answer.blob())
  const link = document.createElement('a')
  link.href = address
  link.download = nameIn(answer.headers.get('Content-Disposition')) ?? `${wish.what}.${wish.form}`
  link.click()
  URL.revokeObjectURL(address)
  return link.download
}

/** The name a file comes with (RFC 6266, 4.1, the form of RFC 8187). */
export const nameIn = (disposition: string | null): string | undefined => {
  const name = /filename\*=UTF-8''([^;]+)/.exec(disposition ?? '')?.[1]
  return name && decodeURIComponent(name)
}
