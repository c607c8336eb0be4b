import { type Brick, type EventBrick, type Layer, type Time, titleOf } from '../model/bricks'
import { daysOf } from '../model/times'
import { whenText } from '../model/whenText'
import { clockText, dayText } from '../reader/dates'
import { type BrickFate, fateWords } from './bricks/fate'
import type { RosterRow } from './roster/roster'

/** Says whether a brick went elsewhere, to somebody else, or was lengthened. */
export function whatChanged(
  brick: EventBrick,
  time: Time,
  target: RosterRow | undefined,
  source: RosterRow | undefined,
  purpose?: Layer['purpose'],
): string {
  const title = titleOf(brick.title, purpose)
  const [before, after] = [daysOf(brick.time), daysOf(time)]
  if (target && source && target.key !== source.key && target.personId)
    return `Gave “${title}” to ${target.name}, ${dayText(after.first)}`
  const [from, to] = [timeStart(brick.time), timeStart(time)]
  const [ended, ends] = [timeEnd(brick.time), timeEnd(time)]
  if (from !== to && ended !== ends)
    return `Moved “${title}” to ${before.first === after.first && time.form !== 'days' ? clockText(time.start) : dayText(after.first)}`
  if (from !== to)
    return `“${title}” begins ${time.form === 'days' ? `on ${dayText(after.first)}` : `at ${clockText(time.start)}`} now`
  return before.last !== after.last || time.form === 'days'
    ? `“${title}” lasts until ${dayText(after.last)} now`
    : `“${title}” lasts until ${clockText(time.end)} now`
}

const timeStart = (time: Time) => (time.form === 'days' ? time.first : time.start)
const timeEnd = (time: Time) => (time.form === 'days' ? time.last : time.end)

/** The first names of those an absence is about: its title alone seldom says. */
export const whoseText = (brick: Brick, names: ReadonlyMap<string, string>): string | undefined =>
  brick.form === 'event'
    ? brick.attendees
        .map((id) => names.get(id)?.split(' ')[0])
        .filter(Boolean)
        .join(', ') || undefined
    : undefined

/** "Halifax, 4 h earlier": where somebody's clock is another; `now` is on mine. */
export function elsewhereText(theirs: string, mine: string, now: string): string {
  const here = Temporal.PlainDateTime.from(now)
  const there = here.toZonedDateTime(mine).withTimeZone(theirs).toPlainDateTime()
  const hours = here.until(there).total('hours')
  const name = theirs.split('/').at(-1)?.replaceAll('_', ' ') ?? theirs
  return hours === 0 ? name : `${name}, ${Math.abs(hours)} h ${hours < 0 ? 'earlier' : 'later'}`
}

/** What somebody sees of a brick, told to the coordinator who looks through their eyes. */
export const seenText = (name: string, brick: Brick): string =>
  brick.form === 'busy'
    ? `${name} sees that it is busy then, and nothing else.`
    : `${name} sees the title “${titleOf(brick.title)}”${brick.place ? ` and the place, ${brick.place}` : ''}${
        brick.notes === null ? '; no notes and no attendees.' : '; notes and attendees too.'
      }`

/** What becomes of a brick while one looks at a moment of its calendar. */
export const fateText = (brick: EventBrick, fate: BrickFate | undefined): string =>
  `“${titleOf(brick.title)}” ${fate ? fateWords[fate] : 'stays as it is'}, ${whenText(brick.time)}.`

/** All that is known of a brick in a group that is at rest, where it has no desk. */
export const restText = (brick: Brick): string =>
  brick.form === 'busy'
    ? 'Only the times are shared with you here: it was busy then.'
    : [`“${titleOf(brick.title)}”, ${whenText(brick.time)}`, brick.place, brick.notes]
        .filter(Boolean)
        .map((part) => (part ?? '').replace(/[.\s]+$/, ''))
        .join('. ')
        .concat('.')
