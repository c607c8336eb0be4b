import { useState } from 'react'
import type { Layer } from '../../model/bricks'
import { Question } from '../../ui/Question'

interface MarksBarProps {
  count: number
  /** How many of them are not in view. */
  away: number
  hasSeries: boolean
  layers: readonly Layer[]
  onDelete: () => void
  onPutIn: (layer: Layer) => void
  onCopy: (days: number) => void
  onClear: () => void
}

/** What can be done with several marked bricks at once. */
export function MarksBar({
  count,
  away,
  hasSeries,
  layers,
  onDelete,
  onPutIn,
  onCopy,
  onClear,
}: MarksBarProps) {
  const [asked, setAsked] = useState<Layer | null>(null)
  const putIn = (calendarId: string) => {
    const layer = layers.find((one) => one.calendarId === calendarId)
    if (layer && hasSeries) setAsked(layer)
    else if (layer) onPutIn(layer)
  }
  return (
    <section
      aria-label="Marked events"
      className="absolute bottom-3 left-1/2 z-10 flex -translate-x-1/2 items-center gap-2 rounded-control bg-ink px-3 py-1.5 text-on-ink shadow-lg"
    >
      <span role="status" className="font-bold">
        {count} marked
        {away === count ? ', not in view' : away > 0 && `, ${away} of them not in view`}
      </span>
      <select
        aria-label="Move to a calendar"
        value=""
        onChange={(event) => putIn(event.target.value)}
        className="rounded-control border border-on-ink/40 bg-ink px-1 py-1"
      >
        <option value="">Move to …</option>
        {layers
          .filter((layer) => layer.may.add)
          .map((layer) => (
            <option key={layer.calendarId} value={layer.calendarId}>
              {layer.name}
            </option>
          ))}
      </select>
      <select
        aria-label="Copy"
        value=""
        onChange={(event) => onCopy(Number(event.target.value))}
        className="rounded-control border border-on-ink/40 bg-ink px-1 py-1"
      >
        <option value="">Copy …</option>
        <option value="1">a day on</option>
        <option value="7">a week on</option>
        <option value="28">four weeks on</option>
      </select>
      <button type="button" onClick={onDelete} className="rounded-control px-2 py-1 underline">
        Delete
      </button>
      <button type="button" onClick={onClear} className="rounded-control px-2 py-1 underline">
        Clear
      </button>
      {asked && (
        <Question
          title={`Move whole series to “${asked.name}”?`}
          yes="Move the whole series"
          onYes={() => {
            setAsked(null)
            onPutIn(asked)
          }}
          onClose={() => setAsked(null)}
        >
          Dates of a series are among what is marked. A series goes with all of its dates, also those that are
          not marked.
        </Question>
      )}
    </section>
  )
}
