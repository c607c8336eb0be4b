import { addDays } from '../../model/times'
import { clockTyped, dateTyped } from '../../reader/typed'

/** What somebody types to ask who is free: a day, a time or a stretch, and names. */
export interface FreeTyped {
  date: string | null
  /** As "14:00". */
  from: string | null
  to: string | null
  people: string[]
  /** Words that name nothing. */
  unknown: string[]
}

const weekdays = ['sunday', 'monday', 'tuesday', 'wednesday', 'thursday', 'friday', 'saturday']

/**
 * Reads "Thu 14:00 Priya Tomasz", "14 may 9-11 dele", "tomorrow ines". A weekday is the next one, today included;
 * people are known by any beginning of one of their names.
 */
export function freeTyped(
  text: string,
  today: string,
  people: readonly { personId: string; name: string }[],
): FreeTyped {
  const read: FreeTyped = { date: null, from: null, to: null, people: [], unknown: [] }
  const words = text
    .trim()
    .split(/[\s,]+/)
    .filter(Boolean)
  for (let at = 0; at < words.length; at++) {
    const word = words[at] ?? ''
    const next = words[at + 1] ?? ''
    const named = people.filter((one) => isName(word, one.name))
    const day = dayTyped(word, today)
    const pair = next === '' ? undefined : dateTyped(`${word} ${next}`, today)
    const stretch = stretchTyped(word)
    if (read.date === null && day) read.date = day
    else if (read.date === null && pair && /\d/.test(word + next) && /[^\d\s:]/.test(word + next)) {
      read.date = pair
      at++
    } else if (read.from === null && stretch) [read.from, read.to] = stretch
    else if (named.length > 0) {
      const [first] = named
      if (named.length === 1 && first && !read.people.includes(first.personId))
        read.people.push(first.personId)
      else if (named.length > 1) {
        // Two of that name: the next word may tell which.
        const both = named.find((one) => isName(next, one.name))
        if (both) {
          if (!read.people.includes(both.personId)) read.people.push(both.personId)
          at++
        } else read.unknown.push(word)
      }
    } else if (people.some((one) => read.people.includes(one.personId) && isName(word, one.name))) continue
    else read.unknown.push(word)
  }
  return read
}

const isName = (word: string, name: string): boolean =>
  word.length > 1 &&
  name
    .toLowerCase()
    .split(/\s+/)
    .some((part) => part.startsWith(word.toLowerCase()))

function dayTyped(word: string, today: string): string | undefined {
  const typed = word.toLowerCase()
  if (typed === 'today' || typed === 'now') return today
  if (typed === 'tomorrow') return addDays(today, 1)
  const weekday =
    typed.length < 3 ? -1 : weekdays.findIndex((name) => name.startsWith(typed.replace('.', '')))
  if (weekday >= 0) {
    const now = new Date(`${today}T00:00:00Z`).getUTCDay()
    return addDays(today, (weekday - now + 7) % 7)
  }
  return /^\d{4}-\d|^[+-]\d+[dwmy]?$|^\d{1,2}[./]\d/.test(typed) ? dateTyped(typed, today) : undefined
}

function stretchTyped(word: string): [string, string | null] | undefined {
  const [first = '', last] = word.split(/[-–]/)
  const from = clockTyped(first)
  if (!from) return undefined
  if (last === undefined) return [from, null]
  const to = clockTyped(last)
  return to && to > from ? [from, to] : undefined
}
