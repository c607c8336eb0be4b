import { useQueryClient } from '@tanstack/react-query'
import type { Schema } from '../../api/client'
import { leaveAlone } from '../../api/leftAlone'
import { ProblemError } from '../../api/problem'
import { wallKeys } from '../../api/topics'
import { brickKey, type EventBrick, titleOf } from '../../model/bricks'
import { brickOf, draftOf, type EventDraft } from '../../model/eventDraft'
import { newSet, useActs } from '../../undo/acts'
import { deleteEvent, type Reach, writeEvent } from './eventQueries'
import { inTurn } from './inTurn'

type WallBody = Schema['WallBody']

/** What became of a change: done, or somebody else's version that is there now, or refused with a reason that was said. */
export type Written =
  | { kind: 'done' }
  | { kind: 'stale'; theirs: EventDraft }
  | { kind: 'refused'; error: unknown }

/** How many changes of this page are not answered yet. */
let onTheWay = 0

/** Changes events: on the wall at once, saved at once, and back again with the reason where that is refused. */
export function useEventActs() {
  const queries = useQueryClient()
  const acts = useActs()

  const show = async (change: (bricks: WallBody['bricks']) => WallBody['bricks']) => {
    await queries.cancelQueries({ queryKey: ['wall'] })
    const before = queries.getQueriesData<WallBody>({ queryKey: ['wall'] })
    queries.setQueriesData<WallBody>(
      { queryKey: ['wall'] },
      (wall) => wall && { ...wall, bricks: change(wall.bricks) },
    )
    return () => {
      for (const [key, wall] of before) queries.setQueryData(key, wall)
    }
  }
  /**
   * Fetches anew once nothing is on its way any more: before that, what comes would lack what is being saved. What is
   * no longer there, because it was deleted or is a series of its own now, is not asked for, though its desk is still
   * open for a moment.
   */
  const settle = (gone: string | null) => {
    onTheWay -= 1
    if (onTheWay > 0) return
    for (const key of wallKeys)
      void queries.invalidateQueries({
        queryKey: [key],
        predicate: (query) => gone === null || query.queryKey[1] !== gone,
      })
    if (gone === null) return
    const events = { queryKey: ['events', gone] }
    if (queries.getQueryCache().findAll({ ...events, type: 'active' }).length > 0) leaveAlone(gone)
    void queries.invalidateQueries({ ...events, refetchType: 'none' })
  }

  /** Runs one change: shown at once, and taken back where it is refused. */
  const attempt = (...what: Parameters<typeof run>) => acts.during(run(...what))
  const run = async (
    form: EventDraft,
    set: string,
    change: (bricks: WallBody['bricks']) => WallBody['bricks'],
    send: () => Promise<Schema['BrickBodyEvent']>,
    sentence: string,
    isDeletion = false,
  ): Promise<Written> => {
    let gone: string | null = null
    onTheWay += 1
    const back = await show(change)
    try {
      const { eventId, version } = await send()
      if (isDeletion || eventId !== form.eventId) gone = form.eventId
      queries.setQueriesData<WallBody>(
        { queryKey: ['wall'] },
        (wall) =>
          wall && {
            ...wall,
            bricks: wall.bricks.map((one) =>
              one.form === 'event' && one.eventId === eventId ? { ...one, version } : one,
            ),
          },
      )
      acts.done(sentence, set)
      return { kind: 'done' }
    } catch (error) {
      back()
      const theirs = currentOf(error)
      if (theirs) return { kind: 'stale', theirs }
      acts.failed(error)
      return { kind: 'refused', error }
    } finally {
      settle(gone)
    }
  }

  const write = (
    form: EventDraft,
    sentence: string,
    reach: Reach = 'onlyThis',
    set = newSet(),
  ): Promise<Written> => {
    const brick = brickOf(form)
    return attempt(
      form,
      set,
      (bricks) => [...bricks.filter((one) => brickKey(one) !== brickKey(brick)), brick],
      () => inTurn(form, (wish) => writeEvent(wish, set, reach)),
      sentence,
    )
  }

  const remove = (
    form: EventDraft,
    reach: Reach,
    set = newSet(),
    title = titleOf(form.title),
  ): Promise<Written> =>
    attempt(
      form,
      set,
      (bricks) => bricks.filter((one) => !(one.form === 'event' && isReached(one, form, reach))),
      () => inTurn(form, (wish) => deleteEvent(wish, reach, set)),
      `Deleted “${title}”.`,
      true,
    )

  return { write, remove }
}

/** Whether a brick goes when a form's event is deleted as far as that. */
function isReached(brick: EventBrick, form: EventDraft, reach: Reach): boolean {
  if (brick.eventId !== form.eventId) return false
  if (form.only === null || reach === 'whole') return true
  return reach === 'andLater' ? (brick.only ?? '') >= form.only : brick.only === form.only
}

/** The state that is there now, as a stale answer (412) carries it. */
function currentOf(error: unknown): EventDraft | null {
  if (!(error instanceof ProblemError) || error.status !== 412) return null
  return isEvent(error.current) ? draftOf(error.current) : null
}

const isEvent = (value: unknown): value is Schema['BrickBodyEvent'] =>
  typeof value === 'object' && value !== null && 'eventId' in value && 'time' in value && 'version' in value
