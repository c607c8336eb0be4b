import { type ReactNode, useRef, useState } from 'react'
import { Button } from './Button'

interface Listed {
  key: string
  /** What it was read from. */
  text: string
  name: string
  address: string
  /** What is doubtful; null where nothing is. */
  doubt: string | null
  fate: string
  /** What comes of it. */
  note: string
  isTaken: boolean
  canBeTaken: boolean
  /** What else is chosen for it. */
  choice?: ReactNode
}

interface ListedPeopleProps {
  entries: readonly Listed[]
  /** One is to be taken that is not, or the other way round. */
  onTurn: (key: string) => void
  /** The whole list with one row mended. */
  onMend: (text: string) => void
}

/** How a pasted list of people is understood: a row each, taken or not, and mended where it stands. */
export function ListedPeople({ entries, onTurn, onMend }: ListedPeopleProps) {
  const [mending, setMending] = useState<number | null>(null)
  /** Puts a row back as it was mended, beside the others as they were read. */
  const mend = (index: number, mended: string) => {
    setMending(null)
    if (mended !== entries[index]?.text)
      onMend(entries.map((entry, at) => (at === index ? mended : entry.text)).join('\n'))
  }
  if (entries.length === 0) return null
  return (
    <ul
      aria-label="How the list is understood"
      className="@container max-h-72 overflow-y-auto border border-cement-300 bg-surface"
    >
      {entries.map((entry, index) => (
        <li
          key={entry.key}
          data-fate={entry.fate}
          className="flex items-start gap-x-2 border-b border-cement-200 px-2 py-1.5 last:border-b-0 @max-sm:flex-wrap"
        >
          <input
            type="checkbox"
            aria-label={`Add ${entry.name}`}
            checked={entry.isTaken}
            disabled={!entry.canBeTaken}
            onChange={() => onTurn(entry.key)}
            className="mt-1 size-4 accent-ink"
          />
          {mending === index ? (
            <MendField text={entry.text} onMend={(mended) => mend(index, mended)} />
          ) : (
            <span className="min-w-0 flex-1">
              <span className="written font-bold">{entry.name}</span>{' '}
              <span className="written text-[12px] text-cement-700">{entry.address}</span>
              {entry.doubt && <span className="written block text-[12px] text-clash">{entry.doubt}</span>}
              {entry.choice}
            </span>
          )}
          <span className="shrink-0 text-[12px] text-cement-700 @max-sm:basis-full @max-sm:pl-6">
            {entry.note}
            {mending !== index && (
              <>
                {' · '}
                <Button look="link" onClick={() => setMending(index)}>
                  Mend<span className="sr-only"> {entry.text}</span>
                </Button>
              </>
            )}
          </span>
        </li>
      ))}
    </ul>
  )
}

/** What was turned by hand, with one more, or one less. */
export const turnedOver = (turned: ReadonlySet<string>, key: string): ReadonlySet<string> =>
  turned.has(key) ? new Set([...turned].filter((one) => one !== key)) : new Set([...turned, key])

/** The text of one row, mended where it stands: taken with Enter or by going on, left with Escape. */
function MendField({ text, onMend }: { text: string; onMend: (mended: string) => void }) {
  const [mended, setMended] = useState(text)
  // It goes with the key, and its going takes the focus from it once more.
  const isOver = useRef(false)
  const end = (as: string) => {
    if (isOver.current) return
    isOver.current = true
    onMend(as)
  }
  return (
    <input
      aria-label={`Mend ${text}`}
      value={mended}
      // biome-ignore lint/a11y/noAutofocus: it was asked for by a press on this row
      autoFocus
      onChange={(event) => setMended(event.target.value)}
      onBlur={() => end(mended)}
      onKeyDown={(event) => {
        if (event.key !== 'Enter' && event.key !== 'Escape') return
        event.preventDefault()
        event.stopPropagation()
        end(event.key === 'Enter' ? mended : text)
      }}
      className="written min-w-0 flex-1 rounded-control border border-cement-500 bg-surface px-1.5 py-0.5"
    />
  )
}
