import { useQuery } from '@tanstack/react-query'
import { useMemo } from 'react'
import { momentWallQuery } from '../../features/history/momentQueries'
import { brickKey, type EventBrick } from '../../model/bricks'
import type { BrickFate } from '../bricks/fate'
import type { WallPlace } from './useWallPlace'

const nothing: never[] = []

/** What lies on the wall of a calendar that is looked at as it was: what would come, go, move and change. */
export function useThen({ moment, period }: WallPlace) {
  const dates = useQuery(momentWallQuery(moment, period.first, period.last)).data ?? nothing
  return useMemo(() => {
    const laid = moment
      ? dates.map(({ brick, fate, isThen }) => ({ brick: laidAs(brick, isThen), fate, isThen }))
      : nothing
    return {
      calendarId: moment?.calendarId ?? null,
      /** As it was; what is there now is on the wall already. */
      bricks: laid.filter((date) => date.isThen).map((date) => date.brick),
      fates: new Map(laid.map(({ brick, fate, isThen }) => [brickKey(brick), fateOf(fate, isThen)])),
    }
  }, [dates, moment])
}

/** As it was it lies beside itself as it is, so it has a name of its own. */
const laidAs = (brick: Omit<EventBrick, 'form'>, isThen: boolean): EventBrick => ({
  ...brick,
  form: 'event',
  eventId: isThen ? `then-${brick.eventId}` : brick.eventId,
})

const fateOf = (fate: 'comes' | 'goes' | 'moves' | 'changes', isThen: boolean): BrickFate =>
  fate === 'moves' ? (isThen ? 'movesHere' : 'movesAway') : fate
