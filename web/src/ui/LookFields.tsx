import { useId } from 'react'
import type { Schema } from '../api/client'
import { hues } from './looks'
import { MarkSign, marks } from './MarkSign'

/** Colour and mark, with what they look like. */
export function LookFields({
  look,
  onChange,
}: {
  look: { hue: Schema['Hue']; mark: Schema['Mark'] }
  onChange: (part: { hue?: Schema['Hue']; mark?: Schema['Mark'] }) => void
}) {
  const name = useId()
  return (
    <>
      <fieldset>
        <legend className="mb-1 text-[12px] text-cement-700">Colour</legend>
        <div className="flex flex-wrap gap-1">
          {hues.map((hue) => (
            <label
              key={hue.value}
              data-hue={hue.value}
              title={hue.label}
              className="relative size-9 has-checked:outline-2 has-checked:outline-offset-1 has-checked:outline-ink"
            >
              <input
                type="radio"
                name={`${name}-hue`}
                aria-label={hue.label}
                checked={look.hue === hue.value}
                onChange={() => onChange({ hue: hue.value })}
                className="absolute inset-0 cursor-pointer opacity-0"
              />
              <span className="pointer-events-none block h-full border-4 border-layer-edge bg-layer-tint" />
            </label>
          ))}
        </div>
      </fieldset>
      <fieldset data-hue={look.hue}>
        <legend className="mb-1 text-[12px] text-cement-700">Mark</legend>
        <div className="flex flex-wrap gap-1">
          {marks.map((mark) => (
            <label
              key={mark}
              title={mark}
              className="relative grid size-9 place-items-center border border-cement-300 text-layer-edge has-checked:border-layer-edge has-checked:bg-layer-edge has-checked:text-surface has-focus-visible:outline-2 has-focus-visible:outline-focus"
            >
              <input
                type="radio"
                name={`${name}-mark`}
                aria-label={mark}
                checked={look.mark === mark}
                onChange={() => onChange({ mark })}
                className="absolute inset-0 cursor-pointer opacity-0"
              />
              <MarkSign mark={mark} size={16} />
            </label>
          ))}
        </div>
      </fieldset>
    </>
  )
}
