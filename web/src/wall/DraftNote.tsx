import { useQuery } from '@tanstack/react-query'
import { ProblemError } from '../api/problem'
import { eventQuery } from '../features/events/eventQueries'
import { brickKey } from '../model/bricks'
import type { EventDraft } from '../model/eventDraft'
import type { Wall } from './useWall'

/** What was written and not saved, until it is saved or one says that it can go. */
export function DraftNote({ draft }: Pick<Wall, 'draft'>) {
  return (
    <div role="status">
      {draft.left.map((form) => (
        <Left key={brickKey(form)} form={form} draft={draft} />
      ))}
    </div>
  )
}

/** One of them. Of an event that is there it is asked first whether it may still be seen: its title is not told to who lost it. */
function Left({ form, draft }: { form: EventDraft } & Pick<Wall, 'draft'>) {
  const isThere = form.before !== null
  const event = useQuery({ ...eventQuery(form.eventId, form.only), enabled: isThere })
  if (isThere && !event.data && !event.isError) return null
  const isGone = event.error instanceof ProblemError && event.error.status === 404
  const isSeen = !isThere || (event.data !== undefined && !isGone)
  return (
    <p className="flex flex-wrap items-center gap-x-4 border-b border-cement-300 bg-cement-200 px-4 text-[13px]">
      <span className="written py-1">
        {isSeen ? `“${draft.titleIn(form)}” was not saved.` : 'What you wrote was not saved.'}
      </span>
      <button type="button" onClick={() => draft.bringBack(form)} className="py-1 font-bold underline">
        Bring it back
      </button>
      <button type="button" onClick={() => draft.forget(form)} className="py-1 underline">
        Let it go
      </button>
    </p>
  )
}
