import type { Gap } from '../../model/availabilityQueries'
import { blankBrick, type EventBrick, type Layer, type Time } from '../../model/bricks'
import { newDraft } from '../../model/eventDraft'
import { bookableOf, layerToMakeIn, placesOf, placeText } from '../../model/makeIn'
import { dateOf, localAt, minuteOf, nextHalfHour } from '../../model/times'
import { useReader } from '../../reader/person'
import { useActs } from '../../undo/acts'
import type { Draft } from '../desk/useDraft'
import type { useWallGroup } from '../read/useWallGroup'
import type { WallPlace } from '../read/useWallPlace'
import type { WallRead } from '../read/useWallRead'
import type { Ghost } from './useHand'

const nowhere = 'There is no calendar you can add to. Make one, or ask a coordinator for the step Add.'

/** Making something new: in a row, on a day, in a gap, for some people. */
export function useMaking(
  at: WallPlace,
  { layers, group, asName, isAtRest }: ReturnType<typeof useWallGroup>,
  { rows }: WallRead,
  draft: Draft,
  now: string,
) {
  const { view, as, moment, today } = at
  const { preferences, zone } = useReader().person
  const acts = useActs()
  const makeIn = layerToMakeIn(layers, group?.id, preferences.eventCalendar)
  const layerOf = (lane: string): Layer | undefined => {
    const row = rows.find((one) => one.key === lane)
    return layers.find((one) => one.calendarId === row?.calendarId) ?? makeIn
  }

  const make = (time: Time, lane: string) => {
    if (as) {
      acts.done(`You look through the eyes of ${asName}: go back to your own wall to change something.`)
      return
    }
    if (isAtRest && group) {
      acts.done(`“${group.name}” is at rest: whoever coordinates it wakes it before something is changed.`)
      return
    }
    if (moment) {
      acts.done('You look at a moment: bring it back or leave it as it is before you change something.')
      return
    }
    const layer = layerOf(lane)
    if (!layer) {
      acts.done(nowhere)
      return
    }
    const personId = rows.find((one) => one.key === lane)?.personId
    draft.open(newDraft(layer.calendarId, time, personId ? [personId] : []))
  }
  /** Something new for some people, in the calendar that new events go to. */
  const makeFor = (time: Time, whom: readonly string[], places: readonly string[] = []) => {
    const sought = placesOf(layers, places)
    const layer = bookableOf(sought) ?? makeIn
    if (!layer) {
      acts.done(nowhere)
      return
    }
    draft.open({ ...newDraft(layer.calendarId, time, whom), place: placeText(sought) })
    at.showDay(dateOf(time.form === 'days' ? time.first : time.start))
  }
  /** As long as the preferences say a new event is: today from the next half hour on, else in the morning. */
  const placeOn = (day: string, lane: string) => {
    const start = day === today ? nextHalfHour(minuteOf(now)) : Math.max(9 * 60, preferences.dayBegins)
    const end = localAt(day, start + preferences.eventMinutes)
    make({ form: 'clock', start: localAt(day, start), end, zone }, lane)
  }

  return {
    /** The calendar that new events go to; undefined where there is none. */
    makeIn: makeIn?.calendarId,
    makeFor,
    placeOn,
    makeFromHand: (time: Time, lane: string) => {
      // On a wall without hours a press on a day means an hour of it, and a pull over several means the days.
      if (time.form === 'days' && time.first === time.last && view !== 'week' && view !== 'day')
        placeOn(time.first, lane)
      else make(time, lane)
    },
    takeGap: (gap: Gap, places: readonly string[]) => {
      if (!as)
        makeFor({ form: 'clock', start: gap.suggested, end: gap.suggestedEnd, zone }, gap.named, places)
    },
    /** What is in the hand as a brick: one that moves, or a new one in the layer it would go to. */
    asNew: (ghost: Ghost): EventBrick | null => {
      if (ghost.brick) return { ...ghost.brick, time: ghost.time }
      const layer = layerOf(ghost.lane)
      return layer ? { ...blankBrick(layer.calendarId, 'drawn', ghost.time), title: 'New event' } : null
    },
  }
}
