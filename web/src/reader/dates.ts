/** How dates and hours are written; set once for the person who reads (their locale and clock). */
let locale = 'en-GB'
let twelve = false

type Formats = ReturnType<typeof formatsOf>

const formatsOf = (language: string) => {
  const format = (options: Intl.DateTimeFormatOptions) =>
    new Intl.DateTimeFormat(language, { timeZone: 'UTC', ...options })
  return {
    weekdayDay: format({ weekday: 'short', day: 'numeric' }),
    weekdayDayMonth: format({ weekday: 'short', day: 'numeric', month: 'long' }),
    wholeDay: format({ weekday: 'long', day: 'numeric', month: 'long' }),
    monthYear: format({ month: 'long', year: 'numeric' }),
    month: format({ month: 'long' }),
    shortMonth: format({ month: 'short' }),
    weekday: format({ weekday: 'short' }),
    dayMonthYear: format({ day: 'numeric', month: 'long', year: 'numeric' }),
    field: format({ weekday: 'short', day: 'numeric', month: 'short', year: 'numeric' }),
    numbers: format({ day: 'numeric', month: 'numeric' }),
    // Not hour12, by which half past noon is 0:30 in some languages.
    hour: format({ hour: 'numeric', minute: '2-digit', hourCycle: 'h12' }),
    moment: new Intl.DateTimeFormat(language, {
      weekday: 'short',
      day: 'numeric',
      month: 'short',
      hour: '2-digit',
      minute: '2-digit',
    }),
  }
}

let formats: Formats = formatsOf(locale)

/** Sets the language of dates and the clock of 12 or 24 hours. An empty or unknown language is that of the interface. */
export function writeDatesFor(language: string, hours12: boolean) {
  twelve = hours12
  try {
    locale = language === '' ? 'en-GB' : (Intl.getCanonicalLocales(language)[0] ?? 'en-GB')
  } catch (error) {
    if (!(error instanceof RangeError)) throw error
    locale = 'en-GB'
  }
  formats = formatsOf(locale)
  names.clear()
}

const asDate = (date: string) => new Date(`${date.slice(0, 10)}T00:00:00Z`)

/** "Wed 11 Mar 2026", as a field for a date holds it. */
export const fieldDateText = (date: string) => formats.field.format(asDate(date)).replaceAll(',', '')

/** Whether the reader's language writes the day before the month: 14/5 or 5/14. */
export const isDayFirst = () =>
  formats.numbers.formatToParts(asDate('2026-05-14')).find(({ type }) => type === 'day' || type === 'month')
    ?.type === 'day'

/** Names in the reader's language, by what they are of: asked for with every word that is typed, and made once. */
const names = new Map<string, string[][]>()

const named = (what: string, make: () => string[][]): string[][] => {
  const made = names.get(what) ?? make()
  names.set(what, made)
  return made
}

/** Yesterday, today and tomorrow as the reader's language says them. */
export const dayNamesNear = (): string[] =>
  named('near', () => {
    const near = new Intl.RelativeTimeFormat(locale, { numeric: 'auto' })
    return [[-1, 0, 1].map((days) => near.format(days, 'day').toLowerCase())]
  }).flat()

/** The twelve months as the reader's language writes them, short and long, in small letters. */
export const monthsWritten = (): string[][] =>
  named('months', () =>
    Array.from({ length: 12 }, (_, index) => {
      const first = new Date(Date.UTC(2026, index, 1))
      // By itself, and as it is written beside a day, which in some languages is another form of the word.
      return [
        ...[formats.shortMonth, formats.month].map((each) => each.format(first)),
        ...[formats.field, formats.dayMonthYear, formats.weekdayDayMonth].map(
          (each) => each.formatToParts(first).find(({ type }) => type === 'month')?.value ?? '',
        ),
      ]
        .filter(Boolean)
        .map((name) => name.toLowerCase())
    }),
  )

/** The words that stand between the parts of a date in the reader's language, as “de” in 14 de mayo, in small letters. */
export const betweenWritten = (): string[] =>
  named('between', () => [
    [formats.wholeDay, formats.dayMonthYear, formats.field].flatMap((each) =>
      each
        .formatToParts(asDate('2026-05-14'))
        .filter(({ type }) => type === 'literal')
        .flatMap(({ value }) => value.toLowerCase().split(/[\s.,]+/))
        .filter(Boolean),
    ),
  ]).flat()

/** What the reader's language writes beside an hour before noon and one after it, in small letters. */
export const halvesWritten = (): string[] =>
  named('halves', () => [
    [9, 15].map(
      (hour) =>
        formats.hour
          .formatToParts(new Date(Date.UTC(2000, 0, 1, hour)))
          .find(({ type }) => type === 'dayPeriod')
          ?.value.toLowerCase() ?? '',
    ),
  ]).flat()

/** The seven days of the week from Monday, as the reader's language writes them, short and long, in small letters. */
export const weekdaysWritten = (): string[][] =>
  named('weekdays', () =>
    Array.from({ length: 7 }, (_, index) => {
      const day = new Date(Date.UTC(2026, 0, 5 + index))
      return [formats.weekday, formats.wholeDay]
        .map(
          (each) =>
            each
              .formatToParts(day)
              .find(({ type }) => type === 'weekday')
              ?.value.toLowerCase() ?? '',
        )
        .filter(Boolean)
    }),
  )

/** "Wed 11" */
export const dayText = (date: string) => formats.weekdayDay.format(asDate(date)).replace(',', '')

/** "Wed 11 March" */
export const longDayText = (date: string) => formats.weekdayDayMonth.format(asDate(date)).replace(',', '')

/** "Wednesday 11 March" */
export const wholeDayText = (date: string) => formats.wholeDay.format(asDate(date)).replace(',', '')

/** "11 March 2026" */
export const dateText = (date: string) => formats.dayMonthYear.format(asDate(date))

/** "March 2026" */
export const monthText = (date: string) => formats.monthYear.format(asDate(date))

/** "Mar" */
export const shortMonthText = (date: string) => formats.shortMonth.format(asDate(date))

/** "Wed" */
export const weekdayText = (date: string) => formats.weekday.format(asDate(date))

/** "9 – 15 March 2026", "30 March – 5 April 2026" */
export function periodText(first: string, last: string): string {
  if (first === last) return `${weekdayText(first)} ${dateText(first)}`
  const [from, to] = [Temporal.PlainDate.from(first), Temporal.PlainDate.from(last)]
  if (from.year !== to.year) return `${dateText(first)} – ${dateText(last)}`
  const start =
    from.month === to.month ? String(from.day) : `${from.day} ${formats.month.format(asDate(first))}`
  return `${start} – ${to.day} ${monthText(last)}`
}

/** "09:00" of a local date-time, or "9:00 am". */
export const clockText = (local: string) =>
  twelve ? formats.hour.format(new Date(`2000-01-01T${local.slice(11, 16)}:00Z`)) : local.slice(11, 16)

/** "2 h 30" of minutes. */
export function lengthText(minutes: number): string {
  const [hours, rest] = [Math.floor(minutes / 60), minutes % 60]
  return hours === 0 ? `${rest} min` : rest === 0 ? `${hours} h` : `${hours} h ${rest}`
}

/** An instant on this device's clock: "Wed 11 Mar, 11:12" */
export const momentText = (instant: string) => formats.moment.format(new Date(instant))

/** "Fri 20 March, back Mon 23" for whole days. */
export function daysText(first: string, last: string): string {
  const back = Temporal.PlainDate.from(last).add({ days: 1 }).toString()
  return first === last
    ? `${longDayText(first)}, all day`
    : `${longDayText(first)} to ${longDayText(last)}, over on ${dayText(back)}`
}
