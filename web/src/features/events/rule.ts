/** What people say when something repeats; anything else a rule can say is kept as it is. */
export interface RuleWish {
  step: 'day' | 'week' | 'month' | 'year'
  every: number
  /** MO to SU; empty for the start's own. Only with weeks. */
  weekdays: readonly string[]
  /** Only with months: the start's day of the month, its weekday in the month, or the last day. */
  by: 'date' | 'weekday' | 'lastWeekday' | 'lastDay'
  /** What becomes of the 31st in a month that has none. */
  shortMonths: 'leaveOut' | 'lastDay'
  ends: { how: 'never' } | { how: 'until'; day: string } | { how: 'times'; count: number }
}

export const weekdayCodes = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'] as const

const frequencies = { day: 'DAILY', week: 'WEEKLY', month: 'MONTHLY', year: 'YEARLY' } as const

export const plainWish: RuleWish = {
  step: 'week',
  every: 1,
  weekdays: [],
  by: 'date',
  shortMonths: 'leaveOut',
  ends: { how: 'never' },
}

/** The weekday of a date as RFC 5545 writes it. */
export const weekdayOf = (date: string): string =>
  weekdayCodes[(new Date(`${date.slice(0, 10)}T00:00:00Z`).getUTCDay() + 6) % 7] ?? 'MO'

/** Which of its weekday in the month a date is: 1 for the first. */
export const placeInMonth = (date: string): number => Math.ceil(Number(date.slice(8, 10)) / 7)

/** The text of a rule (RFC 5545, 3.3.10; SKIP of RFC 7529, 4.1) for an event that starts on a date. */
export function ruleText(wish: RuleWish, start: string): string {
  const parts = [`FREQ=${frequencies[wish.step]}`]
  if (wish.every > 1) parts.push(`INTERVAL=${wish.every}`)
  if (wish.step === 'week' && wish.weekdays.length > 0)
    parts.push(`BYDAY=${weekdayCodes.filter((day) => wish.weekdays.includes(day)).join(',')}`)
  if (wish.step === 'month') {
    if (wish.by === 'weekday') parts.push(`BYDAY=${placeInMonth(start)}${weekdayOf(start)}`)
    if (wish.by === 'lastWeekday') parts.push(`BYDAY=-1${weekdayOf(start)}`)
    if (wish.by === 'lastDay') parts.push('BYMONTHDAY=-1')
    if (wish.by === 'date' && wish.shortMonths === 'lastDay' && Number(start.slice(8, 10)) > 28)
      parts.unshift('RSCALE=GREGORIAN')
  }
  if (wish.ends.how === 'until') parts.push(`UNTIL=${wish.ends.day.replaceAll('-', '')}`)
  if (wish.ends.how === 'times') parts.push(`COUNT=${wish.ends.count}`)
  if (parts[0] === 'RSCALE=GREGORIAN') parts.push('SKIP=BACKWARD')
  return parts.join(';')
}

/** Reads a rule back; null where it says more than the chooser can. */
export function readRule(text: string, start: string): RuleWish | null {
  const parts = new Map(text.split(';').map((part) => part.split('=') as [string, string]))
  const step = (['day', 'week', 'month', 'year'] as const).find(
    (one) => frequencies[one] === parts.get('FREQ'),
  )
  if (!step) return null
  const wish = { ...plainWish, step, every: Number(parts.get('INTERVAL') ?? 1) }
  const byDay = parts.get('BYDAY')
  const until = parts.get('UNTIL')
  const count = parts.get('COUNT')
  const read: RuleWish = {
    ...wish,
    weekdays: step === 'week' && byDay ? byDay.split(',') : [],
    by:
      byDay === `-1${weekdayOf(start)}`
        ? 'lastWeekday'
        : step === 'month' && byDay
          ? 'weekday'
          : parts.get('BYMONTHDAY') === '-1'
            ? 'lastDay'
            : 'date',
    shortMonths: parts.get('SKIP') === 'BACKWARD' ? 'lastDay' : 'leaveOut',
    ends: until
      ? { how: 'until', day: `${until.slice(0, 4)}-${until.slice(4, 6)}-${until.slice(6, 8)}` }
      : count
        ? { how: 'times', count: Number(count) }
        : { how: 'never' },
  }
  const again = new Map(
    ruleText(read, start)
      .split(';')
      .map((part) => part.split('=') as [string, string]),
  )
  const same = [...new Set([...parts.keys(), ...again.keys()])].every(
    (name) => name === 'UNTIL' || name === 'WKST' || parts.get(name) === again.get(name),
  )
  return same ? read : null
}
