import type { Schema } from '../../api/client'
import { type Hue, tints } from '../../ui/looks'
import { inputLook } from '../../ui/TextField'

type Kind = Schema['Kind']

interface KindFieldsProps {
  kinds: readonly Kind[]
  hue: Hue
  onChange: (kinds: Kind[]) => void
  problem: string | undefined
}

/** The kinds of a calendar's events, each with a tint of its own within the calendar's colour. */
export function KindFields({ kinds, hue, onChange, problem }: KindFieldsProps) {
  const set = (index: number, part: Partial<Kind>) =>
    onChange(kinds.map((kind, place) => (place === index ? { ...kind, ...part } : kind)))
  return (
    <fieldset data-hue={hue} className="grid gap-1">
      <legend className="mb-1 text-[12px] text-cement-700">Kinds of events</legend>
      {kinds.map((kind, index) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a kind that is being named has nothing else to be known by
        <div key={index} className="flex gap-1">
          <input
            aria-label={`Kind ${index + 1}`}
            value={kind.name}
            onChange={(event) => set(index, { name: event.target.value })}
            className={inputLook}
          />
          <select
            aria-label={`Tint of kind ${index + 1}`}
            value={kind.tint}
            data-tint={kind.tint}
            onChange={(event) => {
              const tint = tints.find((one) => one.value === event.target.value)?.value
              if (tint) set(index, { tint })
            }}
            className="brick !w-24 shrink-0 px-1"
          >
            {tints.map((tint) => (
              <option key={tint.value} value={tint.value} className="bg-surface text-ink">
                {tint.label}
              </option>
            ))}
          </select>
          <button
            type="button"
            aria-label={`Take away ${kind.name || `kind ${index + 1}`}`}
            onClick={() => onChange(kinds.filter((_, place) => place !== index))}
            className="px-1.5 hover:bg-cement-200"
          >
            ×
          </button>
        </div>
      ))}
      <button
        type="button"
        onClick={() => onChange([...kinds, { name: '', tint: 'even' }])}
        className="justify-self-start rounded-control px-1 py-0.5 underline"
      >
        Add a kind
      </button>
      {problem && (
        <p role="alert" className="text-[12px] text-clash">
          {problem}
        </p>
      )}
    </fieldset>
  )
}
