import type { Schema } from '../../api/client'
import { withTexts } from '../../api/texts'

type Wall = Schema['WallBody']
type Changes = Schema['ReadWallChangesBody']

/** A wall with what changed on it; bricks that stayed are the same objects as before. */
export function withChanges(wall: Wall, changes: Changes): Wall {
  const { version, events, busy } = changes
  if (events.length === 0 && busy.length === 0) return { ...wall, version }
  const [anew, busyAnew] = [new Set(events), new Set(busy)]
  const stayed = wall.bricks.filter((brick) =>
    brick.form === 'event' ? !anew.has(brick.eventId) : !busyAnew.has(brick.calendarId),
  )
  return {
    ...wall,
    version,
    bricks: [
      ...stayed,
      ...changes.bricks.map((brick) => (brick.form === 'event' ? withTexts(brick, changes.texts) : brick)),
    ],
    clashes: [
      ...wall.clashes.filter((clash) => !anew.has(clash.first) && !anew.has(clash.second)),
      ...changes.clashes,
    ],
  }
}
