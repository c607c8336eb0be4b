import { afterEach, describe, expect, it } from 'vitest'
import { clockText, dateText, fieldDateText, longDayText, wholeDayText, writeDatesFor } from './dates'
import { languages } from './languages'
import { clockTyped, dateTyped } from './typed'

afterEach(() => writeDatesFor('', false))

/** Every day of the year around today, each as far from it as is still nearest. */
const today = '2026-03-11'
const days = Array.from({ length: 364 }, (_, index) =>
  Temporal.PlainDate.from(today)
    .add({ days: index - 181 })
    .toString(),
)

/** Others than those on offer can be kept: some with letters, orders and digits of their own. */
const others = [
  'cs-CZ',
  'el-GR',
  'es-ES',
  'fa-IR-u-ca-gregory',
  'fi-FI',
  'hi-IN-u-nu-deva',
  'nb-NO',
  'nl-NL',
  'pt-BR',
  'ru-RU',
  'uk-UA',
]

describe.each([...languages.map((one) => one.value), ...others])('in the dates of “%s”', (language) => {
  it('every day can be typed back as a field shows it, and as the wall names it', () => {
    writeDatesFor(language, false)
    const wrong = days.flatMap((day) =>
      [fieldDateText(day), longDayText(day), wholeDayText(day), dateText(day)]
        .filter((text) => dateTyped(text, today) !== day)
        .map((text) => `${day}: “${text}” is ${dateTyped(text, today)}`),
    )
    expect(wrong).toEqual([])
  })

  it.each([false, true])('every quarter of an hour can be typed back, of twelve hours: %s', (twelve) => {
    writeDatesFor(language, twelve)
    const wrong = Array.from({ length: 96 }, (_, index) => {
      const clock = `${String(Math.floor(index / 4)).padStart(2, '0')}:${String((index % 4) * 15).padStart(2, '0')}`
      const text = clockText(`2000-01-01T${clock}`)
      return clockTyped(text) === clock ? null : `${clock}: “${text}” is ${clockTyped(text)}`
    }).filter(Boolean)
    expect(wrong).toEqual([])
  })
})

it.each([
  ['ar-EG', '١٤ مايو', '2026-05-14'],
  ['ar-EG', '١٤/٥', '2026-05-14'],
  ['pl-PL', '14 maja', '2026-05-14'],
  ['pl-PL', '1 marca', '2026-03-01'],
  ['fr-FR', '14 août', '2026-08-14'],
  ['fr-FR', 'mar. 17', '2026-03-17'],
  ['', '１４ may', '2026-05-14'],
])('in %s “%s” is %s', (language, typed, date) => {
  writeDatesFor(language, false)
  expect(dateTyped(typed, today)).toBe(date)
})
