import { useQuery } from '@tanstack/react-query'
import type { EventDraft } from '../../model/eventDraft'
import { Button } from '../../ui/Button'
import { useBroughtIntoView } from '../../ui/useBroughtIntoView'
import { previewQuery, type Reach } from './eventQueries'

interface ReachQuestionProps {
  form: EventDraft
  title: string
  /** Whether the dates are to go, rather than change. */
  isDeletion: boolean
  onReach: (reach: Reach) => void
  onCancel: () => void
}

const names: Record<Reach, string> = {
  onlyThis: 'Only this one',
  andLater: 'This and later',
  whole: 'The whole series',
}

/** How much of a series is meant; asked once, with what each answer would come to. It stands on the desk, the wall stays. */
export function ReachQuestion({ form, title, isDeletion, onReach, onCancel }: ReachQuestionProps) {
  const preview = useQuery(previewQuery(form, isDeletion))
  const shown = useBroughtIntoView<HTMLElement>()
  return (
    <section
      ref={shown}
      tabIndex={-1}
      role="alertdialog"
      aria-label="How much of the series"
      className="mb-4 grid gap-2 border-2 border-ink bg-surface p-3"
    >
      <p className="font-bold">
        “{title}” repeats. {isDeletion ? 'Delete' : 'Change'} how much of it?
      </p>
      {preview.isError && <p role="alert">Its dates could not be counted. Close this and try again.</p>}
      {preview.data?.map((one) => (
        <button
          key={one.reach}
          type="button"
          disabled={!one.possible}
          onClick={() => onReach(one.reach)}
          className="rounded-control border border-cement-500 px-3 py-1.5 text-left hover:bg-cement-100 disabled:cursor-default disabled:opacity-60"
        >
          <span className="block font-bold">{names[one.reach]}</span>
          <span className="written block text-[12px] text-cement-700">{one.sentence}</span>
        </button>
      ))}
      <Button look="link" onClick={onCancel}>
        Leave it as it was
      </Button>
    </section>
  )
}
