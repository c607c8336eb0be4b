import type { EventField } from '../../model/eventDraft'
import { LinkedText } from '../../ui/LinkedText'

/** A line: its name, what it says, and the field it is changed in. */
export type EventRow = [string, string | null, EventField | null]

interface EventLinesProps {
  rows: readonly EventRow[]
  isCancelled: boolean
  /** Undefined where it is only read. */
  onChange: ((field: EventField) => void) | undefined
}

/** What an event is, line by line; each leads to its field where it can be changed. */
export function EventLines({ rows, isCancelled, onChange }: EventLinesProps) {
  return (
    <dl className="grid gap-3">
      {isCancelled && <p className="font-bold text-clash">Called off</p>}
      {rows.map(
        ([name, value, field]) =>
          value && (
            <div key={name}>
              <dt className="text-[12px] text-cement-700">
                {onChange && field ? (
                  <button
                    type="button"
                    aria-label={`Change ${name}`}
                    title={`Change ${name}`}
                    onClick={() => onChange(field)}
                    className="underline decoration-dotted underline-offset-2 hover:text-ink"
                  >
                    {name}
                  </button>
                ) : (
                  name
                )}
              </dt>
              <dd className="written whitespace-pre-line">
                {field === 'notes' || field === 'where' ? <LinkedText elsewhere text={value} /> : value}
              </dd>
            </div>
          ),
      )}
    </dl>
  )
}
