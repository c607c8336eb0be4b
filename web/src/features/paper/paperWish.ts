import { dateNamed } from '../../model/times'
import { isView, periodOf, spanOf } from '../../model/views'

/** What there are sheets of. */
export const kinds = [
  { value: 'roster', label: 'Roster', period: ['This week', 'Next week', 'This month'] },
  { value: 'week', label: 'Week', period: ['This week', 'Next week'] },
  { value: 'day', label: 'Day', period: [] },
  { value: 'month', label: 'Month', period: ['Last month', 'This month', 'Next month'] },
  { value: 'agenda', label: 'Agenda', period: ['This week', 'Next week', 'This month', 'Next month'] },
  { value: 'absences', label: 'Absences', period: ['Last month', 'This month', 'Next month', 'This year'] },
  { value: 'access', label: 'Who has what', period: [] },
] as const

export type PaperKind = (typeof kinds)[number]['value']

/** What is to be printed, as its address says it. */
export interface PaperWish {
  what: PaperKind
  from: string
  to: string
  group: string
  size: 'a4' | 'letter'
  across: boolean
  title: string
  places: boolean
  people: boolean
  notes: boolean
  /** The calendars that are left out. */
  without: readonly string[]
}

/** How a kind of sheet begins: what has days side by side lies across, and a month has room for titles only. */
export const beginOf = (what: PaperKind) => ({
  across: what !== 'day' && what !== 'agenda' && what !== 'access',
  places: what !== 'month',
  people: what !== 'month',
  notes: what === 'day',
})

/** Reads an address; `at` is where on the wall one came from. */
export function readWish(search: URLSearchParams, today: string, firstDay: number): PaperWish {
  const [, view = '', date] = (search.get('at') ?? '').split('/')
  const named = kinds.find((one) => one.value === (search.get('what') ?? view))?.value ?? 'roster'
  const day = dateNamed(date) ?? today
  const period = periodOf(
    isView(named) ? named : 'month',
    day,
    isView(named) ? spanOf(named, 0) : 0,
    firstDay,
  )
  const month = named === 'month' || named === 'absences'
  const begun = beginOf(named)
  const is = (key: keyof typeof begun) => {
    const said = search.get(key)
    return said === null ? begun[key] : said === 'true'
  }
  return {
    what: named,
    from: dateNamed(search.get('from') ?? undefined) ?? (month ? `${day.slice(0, 7)}-01` : period.first),
    to: dateNamed(search.get('to') ?? undefined) ?? (month ? lastOfMonth(day) : period.last),
    group: search.get('group') ?? '',
    size: search.get('size') === 'letter' ? 'letter' : 'a4',
    across: is('across'),
    title: search.get('title') ?? '',
    places: is('places'),
    people: is('people'),
    notes: is('notes'),
    without: search.get('without')?.split(' ').filter(Boolean) ?? [],
  }
}

/** A wish as its address says it, without what is as it begins anyway. */
export function writeWish(wish: PaperWish): URLSearchParams {
  const search = new URLSearchParams({ what: wish.what, from: wish.from, to: wish.to })
  if (wish.group) search.set('group', wish.group)
  if (wish.size !== 'a4') search.set('size', wish.size)
  if (wish.title) search.set('title', wish.title)
  if (wish.without.length > 0) search.set('without', wish.without.join(' '))
  const begun = beginOf(wish.what)
  for (const key of ['across', 'places', 'people', 'notes'] as const)
    if (wish[key] !== begun[key]) search.set(key, String(wish[key]))
  return search
}

/** Where the sheets are. */
export function sheetsAddress(wish: PaperWish, calendars: readonly string[]): string {
  const search = new URLSearchParams({
    from: wish.from,
    to: wish.what === 'day' ? wish.from : wish.to,
    size: wish.size,
    across: String(wish.across),
    places: String(wish.places),
    people: String(wish.people),
    notes: String(wish.notes),
  })
  if (wish.group) search.set('group', wish.group)
  if (wish.title) search.set('title', wish.title)
  if (wish.without.length > 0)
    for (const id of calendars) if (!wish.without.includes(id)) search.append('calendars', id)
  return `/paper/${wish.what}?${search}`
}

const lastOfMonth = (day: string): string => {
  const [year = 0, month = 1] = day.split('-').map(Number)
  return new Date(Date.UTC(year, month, 0)).toISOString().slice(0, 10)
}
