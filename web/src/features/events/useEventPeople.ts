import { useQuery } from '@tanstack/react-query'
import type { Layer } from '../../model/bricks'
import type { EventDraft } from '../../model/eventDraft'
import { groupQueries } from '../../model/groupQueries'
import { daysOf } from '../../model/times'
import { useReader } from '../../reader/person'
import { backQuery } from '../absences'
import { answersQuery } from '../answers'

export type EventPeople = ReturnType<typeof useEventPeople>

/** The calendar an event goes to, and who can be named on it. */
export function useEventPeople(form: EventDraft, layers: readonly Layer[]) {
  const { person } = useReader()
  const isNew = form.before === null
  const calendar = layers.find((layer) => layer.calendarId === form.calendarId)
  const groupId = calendar?.groupId
  const members = useQuery({
    ...groupQueries.members(groupId ?? ''),
    enabled: typeof groupId === 'string',
    retry: false,
  })
  const guests = useQuery({
    ...groupQueries.guests(groupId ?? ''),
    enabled: !isNew && form.mayGiveAway && typeof groupId === 'string',
    retry: false,
  })
  // Whoever was given this one event knows by name only those who are named on it.
  const named = useQuery({
    ...answersQuery(form.eventId, form.only),
    enabled: !isNew && groupId === null,
  })
  const away = form.attendees.length > 0 ? form.attendees : [person.id]
  const back = useQuery({
    ...backQuery(groupId ?? null, daysOf(form.time).last, away),
    enabled: calendar?.purpose === 'away' && groupId !== null,
  })
  return {
    calendar,
    /** The calendar it leaves, where it is put into another one. */
    from: layers.find(
      (layer) => layer.calendarId === form.before?.calendarId && layer.calendarId !== form.calendarId,
    ),
    members: members.data,
    guests: guests.data ?? [],
    names: members.data ?? named.data?.people ?? [],
    /** Whom an absence keeps away, and when they are back. */
    away,
    back: back.data?.back ?? null,
  }
}
