import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { eventKey } from '../../model/bricks'
import { momentText } from '../../reader/dates'
import { Button } from '../../ui/Button'
import { TextLink } from '../../ui/TextLink'
import { useActs } from '../../undo/acts'
import { historyQuery } from './eventQueries'

/** Who changed an event when, and its address to hand on. */
export function EventHistory({
  calendarId,
  eventId,
  only,
}: {
  calendarId: string
  eventId: string
  only: string | null
}) {
  const acts = useActs()
  const [open, setOpen] = useState(false)
  const history = useQuery({ ...historyQuery(eventId), enabled: open, retry: false })
  const copy = async () => {
    const address = new URL(window.location.href)
    // With its calendar, so that whoever may not see it can ask for access.
    address.searchParams.set('layers', calendarId)
    address.searchParams.set('desk', `event~${eventKey(eventId, only)}`)
    await navigator.clipboard.writeText(address.toString())
    acts.done('The link is copied. It opens for those who may see the event.')
  }
  return (
    <section className="mt-5 grid gap-2 border-t border-cement-200 pt-3">
      <div className="flex gap-2">
        <Button onClick={() => setOpen(!open)}>{open ? 'Hide history' : 'History'}</Button>
        <Button
          onClick={() =>
            void copy().catch(() =>
              acts.done('The link could not be copied here. Copy the address of this page.'),
            )
          }
        >
          Copy link
        </Button>
      </div>
      {open && history.isError && (
        <p className="text-cement-700">Its history needs the step View on its calendar.</p>
      )}
      {open && history.data && (
        <ol className="grid gap-2">
          {history.data.map((entry, index) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: entries are only ever added, and have no name of their own
            <li key={index} className="border-l-4 border-cement-300 pl-2 text-[13px]">
              <span className="block text-[12px] text-cement-700">{momentText(entry.at)}</span>
              <span className="written">
                {entry.by} {entry.what.join('; ')}
              </span>
            </li>
          ))}
          <li>
            <TextLink to={`/calendars/${calendarId}/history?event=${eventId}`}>Undo some of it</TextLink>
          </li>
          {history.data.length === 0 && <li className="text-cement-700">Nothing was changed yet.</li>}
        </ol>
      )}
    </section>
  )
}
