import { Temporal } from 'temporal-polyfill'

/** Dates are written the way of the interface's language. */
const locale = 'en-GB'

const format = (options: Intl.DateTimeFormatOptions) =>
  new Intl.DateTimeFormat(locale, { timeZone: 'UTC', ...options })
const weekdayDay = format({ weekday: 'short', day: 'numeric' })
const weekdayDayMonth = format({ weekday: 'short', day: 'numeric', month: 'long' })
const monthYear = format({ month: 'long', year: 'numeric' })
const dayMonthYear = format({ day: 'numeric', month: 'long', year: 'numeric' })
const moment = new Intl.DateTimeFormat(locale, {
  weekday: 'short',
  day: 'numeric',
  month: 'short',
  hour: '2-digit',
  minute: '2-digit',
})

const asDate = (date: string) => new Date(`${date.slice(0, 10)}T00:00:00Z`)

/** "Wed 11" */
export const dayText = (date: string) => weekdayDay.format(asDate(date)).replace(',', '')

/** "Wed 11 March" */
export const longDayText = (date: string) => weekdayDayMonth.format(asDate(date)).replace(',', '')

/** "11 March 2026" */
export const dateText = (date: string) => dayMonthYear.format(asDate(date))

/** "9 – 15 March 2026", "30 March – 5 April 2026" */
export function periodText(first: string, last: string): string {
  if (first === last)
    return `${weekdayDay.format(asDate(first)).split(' ')[0]?.replace(',', '')} ${dateText(first)}`
  const [from, to] = [Temporal.PlainDate.from(first), Temporal.PlainDate.from(last)]
  if (from.year !== to.year) return `${dateText(first)} – ${dateText(last)}`
  const start =
    from.month === to.month
      ? String(from.day)
      : `${from.day} ${format({ month: 'long' }).format(asDate(first))}`
  return `${start} – ${to.day} ${monthYear.format(asDate(last))}`
}

/** "09:00" of a local date-time. */
export const clockText = (local: string) => local.slice(11, 16)

/** "2 h 30" of minutes. */
export function lengthText(minutes: number): string {
  const [hours, rest] = [Math.floor(minutes / 60), minutes % 60]
  return hours === 0 ? `${rest} min` : rest === 0 ? `${hours} h` : `${hours} h ${rest}`
}

/** An instant on this device's clock: "Wed 11 Mar, 11:12" */
export const momentText = (instant: string) => moment.format(new Date(instant))

/** "Fri 20 March, back Mon 23" for whole days. */
export function daysText(first: string, last: string): string {
  const back = Temporal.PlainDate.from(last).add({ days: 1 }).toString()
  return first === last
    ? `${longDayText(first)}, all day`
    : `${longDayText(first)} to ${longDayText(last)}, over on ${dayText(back)}`
}
