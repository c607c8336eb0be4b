import { createContext, useContext } from 'react'
import { brickKey, type EventBrick } from '../model/bricks'
import { brickOf } from '../model/eventDraft'
import { dateOf } from '../model/times'
import type { View } from '../model/views'
import { useReader } from '../reader/person'
import { useNow } from '../reader/useNow'
import { useNarrow } from '../ui/useNarrow'
import { useAsked } from './desk/useAsked'
import { type Draft, useDraft } from './desk/useDraft'
import { useSeekingGaps } from './desk/useSeekingGaps'
import { useMaking } from './hand/useMaking'
import { useMarks } from './hand/useMarks'
import { type Moving, useMoving } from './hand/useMoving'
import { useFinding } from './read/useFinding'
import { useWallGroup } from './read/useWallGroup'
import { useWallPlace } from './read/useWallPlace'
import { useWallRead } from './read/useWallRead'

export type Wall = ReturnType<typeof useWall>

/** All that the wall is: where on it one is, what is read for that, what lies on the desk, and what the hand does. */
export function useWall(view: View) {
  const { zone } = useReader().person
  const now = useNow()
  const at = useWallPlace(view, dateOf(now), useNarrow())
  const group = useWallGroup(at)
  const read = useWallRead(at, group, now)
  const marks = useMarks(read.bricks)
  const draft = useDraft(at, group.layers)
  const finding = useFinding(at)
  const asked = useAsked({
    view,
    desk: at.desk,
    isAs: at.as !== null || group.isAtRest,
    isLoaded: read.isRead,
    first: at.period.first,
    last: at.period.last,
    now,
    today: at.today,
    group: group.group,
    inView: read.inView,
    onShowClashes: () => at.place({ kind: 'clashes' }),
  })
  const seeking = useSeekingGaps(at, read.inView, group.arePeopleRead, asked.gaps, draft)
  const making = useMaking(at, group, read, draft, now)
  const moving = useMoving(at, group, read, draft, marks)
  return {
    now,
    zone,
    at,
    ...group,
    read,
    marks,
    draft,
    finding,
    asked,
    seeking,
    making,
    moving,
    carried: carriedOf(moving.carry, at.desk?.kind === 'writing' ? draft.sight : null),
    leaveDesk: () => {
      if (marks.count > 0) marks.clear()
      draft.leaveFor(null)
    },
  }
}

const WallContext = createContext<Wall | null>(null)

export const WallProvider = WallContext.Provider

/** The wall, for what lies on its desk. */
export function useTheWall(): Wall {
  const wall = useContext(WallContext)
  if (!wall) throw new Error('It lies on no wall.')
  return wall
}

/** A brick that is carried by keys or written on the desk, as it would lie; none where it has no calendar yet. */
const carriedOf = (carry: Moving['carry'], sight: Draft['sight']): EventBrick | null =>
  carry
    ? { ...carry.brick, time: carry.time }
    : sight?.kind === 'writes' && sight.form.calendarId
      ? brickOf(sight.form)
      : null

/** The key of what is chosen on the wall: what is carried, or lies on the desk. */
export const chosenOn = ({ carried, at: { desk } }: Wall): string | null =>
  carried ? brickKey(carried) : desk?.kind === 'event' ? desk.key : null
