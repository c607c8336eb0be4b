import type { ComponentType } from 'react'
import { useTheWall } from '../useWall'
import { Asking, Calendar, Look, NewCalendar, NewGroup } from './calendarParts'
import { Clashes, Free, Gaps, Proposal, Proposing } from './coordinatingParts'
import type { DeskPlace, PlaceOf } from './deskPlace'
import { Finding, Reading, Writing } from './eventParts'
import { KeyList } from './KeyList'

function Keys() {
  return <KeyList onClose={useTheWall().draft.close} />
}

/** What lies on the desk at each of its places; each part reads from the wall what it needs. */
const parts: { [K in DeskPlace['kind']]: ComponentType<{ place: PlaceOf<K> }> } = {
  writing: Writing,
  event: Reading,
  find: Finding,
  look: Look,
  calendar: Calendar,
  newCalendar: NewCalendar,
  newGroup: NewGroup,
  ask: Asking,
  gaps: Gaps,
  propose: Proposing,
  proposal: Proposal,
  clashes: Clashes,
  free: Free,
  keys: Keys,
}

/** Lays on the desk what its place names. */
export function WallDesk({ place }: { place: DeskPlace }) {
  const Part = parts[place.kind] as ComponentType<{ place: DeskPlace }>
  return <Part place={place} />
}
