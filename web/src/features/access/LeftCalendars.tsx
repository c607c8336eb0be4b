import type { Schema } from '../../api/client'
import { takeOverCalendar } from '../../model/accessQueries'
import { Button } from '../../ui/Button'
import { useChange } from '../../undo/useChange'

/** Calendars whose coordinators have all left the group, for one who coordinates it to take over. */
export function LeftCalendars({ left }: { left: readonly Schema['AccessTableLeftBody'][] }) {
  const change = useChange(['shelf', 'access'])
  return (
    <section
      aria-label="Calendars nobody coordinates"
      className="border-b border-cement-300 bg-cement-100 px-4 py-2"
    >
      <ul className="space-y-1">
        {left.map((one) => (
          <li key={one.calendarId} className="flex flex-wrap items-center gap-3">
            <span>
              Nobody in the group coordinates <b>“{one.name}”</b> any more.
            </span>
            <Button
              disabled={change.isPending}
              onClick={() =>
                change.mutate({
                  act: (set) => takeOverCalendar(one.calendarId, set),
                  sentence: `You coordinate “${one.name}” now.`,
                })
              }
            >
              Take over “{one.name}”
            </Button>
          </li>
        ))}
      </ul>
    </section>
  )
}
