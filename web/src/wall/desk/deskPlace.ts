import type { CalendarPart } from '../../features/calendars/CalendarDesk'

/** What lies on the desk; all but what is being written can be kept as an address. */
export type DeskPlace =
  | { kind: 'writing' }
  | { kind: 'event'; key: string }
  | { kind: 'calendar'; calendarId: string; part: CalendarPart }
  | { kind: 'newCalendar' }
  | { kind: 'newGroup' }
  | { kind: 'ask'; to?: string }
  | { kind: 'gaps' }
  | { kind: 'free' }
  | { kind: 'propose' }
  | { kind: 'proposal'; id: string }
  | { kind: 'clashes' }
  | { kind: 'look'; calendarId: string }
  | { kind: 'find' }
  | { kind: 'keys' }

export type PlaceOf<K extends DeskPlace['kind']> = Extract<DeskPlace, { kind: K }>

const parts: readonly CalendarPart[] = ['about', 'access', 'import', 'settings']

export function readDesk(text: string | null): DeskPlace | null {
  const [kind, id = '', rest = ''] = text?.split('~') ?? []
  switch (kind) {
    case 'writing':
    case 'newCalendar':
    case 'newGroup':
    case 'gaps':
    case 'free':
    case 'propose':
    case 'clashes':
    case 'find':
    case 'keys':
      return { kind }
    case 'proposal':
      return { kind, id }
    case 'ask':
      return id ? { kind, to: id } : { kind }
    case 'look':
      return { kind, calendarId: id }
    case 'event':
      return { kind, key: id }
    case 'calendar':
      return { kind, calendarId: id, part: parts.find((part) => part === rest) ?? 'about' }
    default:
      return null
  }
}

export function deskText(place: DeskPlace): string {
  switch (place.kind) {
    case 'event':
      return `event~${place.key}`
    case 'calendar':
      return `calendar~${place.calendarId}~${place.part}`
    case 'proposal':
      return `proposal~${place.id}`
    case 'ask':
      return place.to ? `ask~${place.to}` : 'ask'
    case 'look':
      return `look~${place.calendarId}`
    default:
      return place.kind
  }
}
