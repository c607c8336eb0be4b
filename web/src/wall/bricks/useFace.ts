import { useCallback } from 'react'
import { brickKey, timeOf } from '../../model/bricks'
import { isPast } from '../../model/times'
import { useSteady } from '../hand/useSteady'
import { chosenOn, type Wall } from '../useWall'
import type { ViewProps } from '../viewProps'
import { whoseText } from '../wallWords'
import type { BrickActs } from './BrickButton'

/** How each brick is drawn: the same function as long as nothing that decides it is another. */
export function useFace(wall: Wall): ViewProps['face'] {
  const { now, zone, layers, names, moving } = wall
  const { byId, clashes, fates } = wall.read
  const { view } = wall.at
  const { found } = wall.finding
  const acts = useSteady<BrickActs>({
    onOpen: moving.open,
    onMark: moving.mark,
    onBrickKey: moving.onBrickKey,
  })
  const chosen = chosenOn(wall)
  const carriedIn = wall.carried?.calendarId
  const marked = wall.marks.keys
  return useCallback<ViewProps['face']>(
    (brick) => {
      const layer =
        byId.get(brick.calendarId) ??
        (brick.calendarId === carriedIn ? layers.find((one) => one.calendarId === carriedIn) : undefined)
      const key = brickKey(brick)
      return (
        layer && {
          brick,
          layer,
          acts,
          state: {
            past: isPast(timeOf(brick, zone), now),
            chosen: key === chosen,
            marked: marked.has(key),
            clash: clashes.get(key),
            whose: view === 'roster' || layer.purpose !== 'away' ? undefined : whoseText(brick, names),
            found: found === null ? undefined : brick.form === 'event' && found.has(brick.eventId),
            fate: fates.get(key),
          },
        }
      )
    },
    [byId, carriedIn, layers, acts, zone, now, chosen, marked, clashes, fates, view, names, found],
  )
}
