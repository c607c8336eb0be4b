import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { Bell } from 'lucide-react'
import { eventKey, titleOf } from '../../model/bricks'
import { daysOf } from '../../model/times'
import { whenText } from '../../model/whenText'
import { TextLink } from '../../ui/TextLink'
import { useActs } from '../../undo/acts'
import { putAway, type Reminder, remindersQuery } from './reminderQueries'

/** What one is reminded of, over whatever is open, until it is put away or over. */
export function ReminderBar() {
  const reminders = useQuery(remindersQuery)
  const queries = useQueryClient()
  const acts = useActs()
  const away = useMutation({
    mutationFn: (one: Reminder) => putAway(one.event.eventId, one.start),
    onMutate: (one) =>
      queries.setQueryData(remindersQuery.queryKey, (before) => before?.filter((other) => other !== one)),
    onError: (error) => acts.failed(error),
    onSettled: () => void queries.invalidateQueries({ queryKey: ['reminders'] }),
  })
  const shown = reminders.data ?? []
  return (
    <section
      aria-label="Reminders"
      aria-live="polite"
      className="pointer-events-none fixed bottom-16 left-3 z-35 grid w-80 max-w-[calc(100vw-1.5rem)] gap-2 max-sm:bottom-32"
    >
      {shown.slice(0, 4).map((one) => (
        <div
          key={`${one.event.eventId}/${one.start}`}
          className="pointer-events-auto grid gap-1 border-2 border-ink bg-surface p-3 shadow-lg"
        >
          <p className="flex items-start gap-2">
            <Bell size={16} aria-hidden="true" className="mt-0.5 shrink-0" />
            <b className="written min-w-0">{titleOf(one.event.title)}</b>
          </p>
          <p>
            {whenText(one.event.time)}
            {one.event.place && <span className="written block">{one.event.place}</span>}
          </p>
          <p className="flex gap-4">
            <TextLink
              to={`/week/${daysOf(one.event.time).first}?desk=event~${eventKey(one.event.eventId, one.event.only)}`}
            >
              Open it
            </TextLink>
            <button type="button" className="underline underline-offset-2" onClick={() => away.mutate(one)}>
              Put away
            </button>
          </p>
        </div>
      ))}
      {shown.length > 4 && (
        <p className="justify-self-end bg-ink px-2 text-on-ink">and {shown.length - 4} more</p>
      )}
    </section>
  )
}
