import { useQueryClient } from '@tanstack/react-query'
import type { Schema } from '../../api/client'
import { ProblemError } from '../../api/problem'
import { newSet, useActs } from '../../app/acts'
import { brickKey, titleOf } from '../wall/bricks'
import { brickOf, type EventForm, formOf } from './eventForm'
import { deleteEvent, writeEvent } from './eventQueries'

type WallBody = Schema['WallBody']

/** What became of a change: done, or somebody else's version that is there now, or refused with a reason that was said. */
export type Written =
  | { kind: 'done' }
  | { kind: 'stale'; theirs: EventForm }
  | { kind: 'refused'; error: unknown }

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
  const settle = () => {
    void queries.invalidateQueries({ queryKey: ['wall'] })
    void queries.invalidateQueries({ queryKey: ['events'] })
  }

  const write = async (form: EventForm, sentence: string): Promise<Written> => {
    const set = newSet()
    const brick = brickOf(form)
    const back = await show((bricks) => [...bricks.filter((one) => brickKey(one) !== brickKey(brick)), brick])
    try {
      await writeEvent(form, set)
      acts.done(sentence, set)
      return { kind: 'done' }
    } catch (error) {
      back()
      const theirs = currentOf(error)
      if (theirs) return { kind: 'stale', theirs }
      acts.failed(error)
      return { kind: 'refused', error }
    } finally {
      settle()
    }
  }

  const remove = async (form: EventForm, only: string | null): Promise<Written> => {
    const set = newSet()
    const back = await show((bricks) =>
      bricks.filter(
        (one) =>
          !(one.kind === 'event' && one.eventId === form.eventId && (only === null || one.only === only)),
      ),
    )
    try {
      await deleteEvent(form.eventId, only, form.version ?? 0, set)
      acts.done(`Deleted “${titleOf(form.title)}”.`, set)
      return { kind: 'done' }
    } catch (error) {
      back()
      const theirs = currentOf(error)
      if (theirs) return { kind: 'stale', theirs }
      acts.failed(error)
      return { kind: 'refused', error }
    } finally {
      settle()
    }
  }

  return { write, remove }
}

/** The state that is there now, as a stale answer (412) carries it. */
function currentOf(error: unknown): EventForm | null {
  if (!(error instanceof ProblemError) || error.status !== 412) return null
  return isEvent(error.current) ? formOf(error.current) : null
}

const isEvent = (value: unknown): value is Schema['BrickBodyEvent'] =>
  typeof value === 'object' && value !== null && 'eventId' in value && 'time' in value && 'version' in value
