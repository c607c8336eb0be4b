import { useEventActs } from '../../features/events/useEventActs'
import { type Brick, brickKey, type EventBrick, eventKey } from '../../model/bricks'
import { brickOf, copyOf, draftOf, type EventDraft } from '../../model/eventDraft'
import { daysOf } from '../../model/times'
import { dayText } from '../../reader/dates'
import { isFinger } from '../../ui/isFinger'
import { useActs } from '../../undo/acts'
import type { Draft } from '../desk/useDraft'
import type { useWallGroup } from '../read/useWallGroup'
import type { WallPlace } from '../read/useWallPlace'
import type { WallRead } from '../read/useWallRead'
import { carriedTo } from '../roster/roster'
import { fateText, restText, seenText, whatChanged } from '../wallWords'
import { useCarry } from './useCarry'
import type { Carried } from './useHand'
import type { useMarks } from './useMarks'

/** What is done with bricks that lie on the wall: opened, marked, carried elsewhere by hand or by keys, copied. */
export function useMoving(
  { as, moment }: WallPlace,
  { asName, names, isAtRest }: ReturnType<typeof useWallGroup>,
  { rows, byId, bricks, fates }: WallRead,
  draft: Draft,
  marks: ReturnType<typeof useMarks>,
) {
  const acts = useActs()
  const { write } = useEventActs()

  const open = (brick: Brick) => {
    // While some are marked on a touch screen, a tap marks one more or one less.
    if (marks.count > 0 && isFinger() && brick.form === 'event' && !as && !moment && !isAtRest) {
      marks.mark(brick)
      return
    }
    if (as) acts.done(seenText(asName, brick))
    else if (isAtRest) acts.done(restText(brick))
    else if (moment && brick.form === 'event') acts.done(fateText(brick, fates.get(brickKey(brick))))
    else if (brick.form === 'busy') acts.done('Only the times are shared with you here: it is busy then.')
    else draft.leaveFor({ kind: 'event', key: eventKey(brick.eventId, brick.only) })
  }
  const change = async (wish: EventDraft, sentence: string, brick: EventBrick) => {
    const written = await write(wish, sentence, 'whole')
    if (written.kind === 'stale') draft.open(wish, written.theirs)
    else if (draft.form && brickKey(brick) === brickKey(brickOf(draft.form))) draft.close()
  }
  /** One date of a series is asked how far it reaches before anything is saved. */
  const changeOrAsk = (wish: EventDraft, sentence: string, brick: EventBrick): boolean => {
    if (brick.only) draft.open(wish, null, 'change')
    else void change(wish, sentence, brick)
    return !brick.only
  }
  /** Whether it stays where it was put until the answer comes. */
  const carryTo = ({ brick, time, from, to, copy }: Carried): boolean => {
    const rowOf = (key: string) => rows.find((row) => row.key === key)
    const [source, target] = [rowOf(from), rowOf(to)]
    const attendees = source && target ? carriedTo(brick, source, target) : [...brick.attendees]
    const wish = { ...draftOf(brick), time, attendees }
    const isOfMarked = marks.count > 1 && marks.keys.has(brickKey(brick))
    if (copy && isOfMarked) {
      void marks.copyAll(brick, time)
      return false
    }
    if (copy) {
      const day = dayText(daysOf(time).first)
      void write(copyOf(wish), `Copied “${draft.titleIn(brick)}” to ${day}.`, 'whole')
      return true
    }
    if (JSON.stringify([time, attendees]) === JSON.stringify([brick.time, brick.attendees])) return false
    if (isOfMarked) {
      void marks.moveAll(brick, time)
      return false
    }
    const purpose = byId.get(brick.calendarId)?.purpose
    return changeOrAsk(wish, `${whatChanged(brick, time, target, source, purpose)}.`, brick)
  }
  const { carry, takeUp, onBrickKey } = useCarry(
    (put, copy) => carryTo({ ...put, copy }),
    (sentence) => acts.done(sentence),
  )

  return {
    open,
    mark: (brick: Brick) => {
      if (!as && !moment && !isAtRest && brick.form === 'event') marks.mark(brick)
    },
    carryTo,
    /** What is carried by keys. */
    carry,
    onBrickKey,
    /** Takes up the brick that lies open on the desk, as M does where the brick has the focus. */
    takeUpChosen: (key: string) => {
      const brick = bricks.find((one) => brickKey(one) === key)
      const there = document.querySelector<HTMLElement>(`[data-brick="${CSS.escape(key)}"]`)
      if (!brick || !there) return
      there.focus()
      takeUp(brick, there)
    },
    takeOff: (brick: EventBrick, personId: string) => {
      const wish = { ...draftOf(brick), attendees: brick.attendees.filter((one) => one !== personId) }
      const sentence = `Took ${names.get(personId) ?? 'somebody'} off “${draft.titleIn(brick)}”.`
      changeOrAsk(wish, sentence, brick)
    },
  }
}

export type Moving = ReturnType<typeof useMoving>
