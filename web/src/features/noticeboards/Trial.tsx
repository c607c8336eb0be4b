import type { Schema } from '../../api/client'
import { sentenceOf } from '../../api/problem'
import { Alert } from '../../ui/Alert'
import { type BoardView, viewNames } from './noticeboardQueries'

interface TrialProps {
  trial: Schema['NoticeboardsTriedBody'] | undefined
  error: unknown
  isWaiting: boolean
  views: readonly BoardView[]
  view: BoardView | undefined
  onView: (view: BoardView) => void
}

/** The page as the world would get it, and what that means. */
export function Trial({ trial, error, isWaiting, views, view, onView }: TrialProps) {
  return (
    <section aria-label="As the world sees it" className="flex min-h-0 min-w-0 flex-col max-sm:h-[80vh]">
      <div className="grid gap-1 border-b border-cement-300 bg-surface px-4 py-3">
        <p aria-live="polite">
          {trial?.sentence}{' '}
          {trial && (
            <strong
              data-warn={trial.withNotes + trial.withPeople > 0}
              className="data-[warn=true]:text-clash"
            >
              {trial.counted}.
            </strong>
          )}
        </p>
        {error !== null && error !== undefined && <Alert>{sentenceOf(error)}</Alert>}
        <fieldset className="flex gap-1" aria-label="View shown here">
          {views.map((one) => (
            <button
              key={one}
              type="button"
              aria-pressed={one === view}
              onClick={() => onView(one)}
              className="rounded-control border border-cement-300 px-2 py-0.5 text-[12px] aria-pressed:bg-ink aria-pressed:text-on-ink"
            >
              {viewNames[one]}
            </button>
          ))}
          <span role="status" className="ml-2 text-[12px] text-cement-700">
            {isWaiting && trial ? 'drawing it anew' : ''}
          </span>
        </fieldset>
      </div>
      <iframe
        title="The noticeboard"
        // Nothing in it can act: it is looked at, not used.
        sandbox=""
        srcDoc={trial?.html ?? ''}
        className="min-h-0 w-full flex-1 border-0 bg-cement-100"
      />
    </section>
  )
}
