import { differences, type EventDraft } from '../../model/eventDraft'
import { Button } from '../../ui/Button'
import { useBroughtIntoView } from '../../ui/useBroughtIntoView'

interface TwoVersionsProps {
  mine: EventDraft
  theirs: EventDraft
  onTheirs: () => void
  onMine: () => void
}

/** Somebody changed the same event in the meantime: both versions, and the choice. Nothing was overwritten. */
export function TwoVersions({ mine, theirs, onTheirs, onMine }: TwoVersionsProps) {
  const rows = differences(mine, theirs)
  const shown = useBroughtIntoView<HTMLElement>()
  return (
    <section
      ref={shown}
      tabIndex={-1}
      role="alert"
      className="mb-4 grid gap-3 border-2 border-clash bg-surface p-3"
    >
      <p className="font-bold">This was changed in the meantime. Nothing has been overwritten.</p>
      {rows.length === 0 && <p>What you wanted is what is there now.</p>}
      {rows.map((row) => (
        <dl
          key={row.field}
          className="grid grid-cols-[3.5rem_1fr] gap-x-2 border-t border-cement-200 pt-2 text-[13px]"
        >
          <dt className="col-span-2 text-[12px] text-cement-700">{row.field}</dt>
          <dt>Now</dt>
          <dd className="written whitespace-pre-line">{row.theirs || '–'}</dd>
          <dt>Yours</dt>
          <dd className="written whitespace-pre-line">{row.mine || '–'}</dd>
        </dl>
      ))}
      <div className="flex flex-wrap gap-2">
        <Button onClick={onTheirs}>Keep what is there now</Button>
        <Button onClick={onMine}>Put mine in its place</Button>
      </div>
    </section>
  )
}
