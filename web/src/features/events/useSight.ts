import { useQuery } from '@tanstack/react-query'
import { ProblemError } from '../../api/problem'
import type { EventBrick, Layer } from '../../model/bricks'
import type { EventDraft } from '../../model/eventDraft'
import { eventQuery } from './eventQueries'

/** How the one who writes an event stands to it at this moment, whatever it was when they opened it. */
export type Sight =
  | { kind: 'writes'; form: EventDraft }
  /** It can be read by now: what may be seen of it. */
  | { kind: 'reads'; event: Omit<EventBrick, 'form'> }
  /** Nothing of it is shown to them any more. */
  | { kind: 'gone' }

/**
 * Asks for the event that is being written each time something changed, as whoever reads it does. A new one loses the
 * calendar it was for where nothing can be added there any more: where it goes is chosen anew, by them. Nothing is shown of one
 * that was kept since some time before it is known that it may still be seen.
 */
export function useSight(form: EventDraft | null, layers: readonly Layer[], wasKept: boolean): Sight | null {
  const isThere = form !== null && form.before !== null
  const event = useQuery({ ...eventQuery(form?.eventId ?? '', form?.only ?? null), enabled: isThere })
  if (form === null) return null
  if (form.before === null) {
    const mayAdd = layers.some((layer) => layer.calendarId === form.calendarId && layer.may.add)
    return { kind: 'writes', form: mayAdd ? form : { ...form, calendarId: '' } }
  }
  if (event.error instanceof ProblemError && event.error.status === 404) return { kind: 'gone' }
  if (wasKept && !event.data && !event.isError) return null
  return event.data && !event.data.mayChange ? { kind: 'reads', event: event.data } : { kind: 'writes', form }
}

/** What whoever has the form typed themselves, by the names of its fields. */
export const typedIn = ({ title, place, notes, before }: EventDraft): [string, string][] =>
  (
    [
      ['Title', title, before?.title ?? ''],
      ['Where', place, before?.place ?? ''],
      ['Notes', notes ?? '', before?.notes ?? ''],
    ] as const
  )
    .filter(([, now, before]) => now !== before && now !== '')
    .map(([field, now]) => [field, now])
