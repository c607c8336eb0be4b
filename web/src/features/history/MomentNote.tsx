import { sentenceOf } from '../../api/problem'
import type { Layer } from '../../model/bricks'
import { longDayText } from '../../reader/dates'
import { Button } from '../../ui/Button'
import { MarkBlock } from '../../ui/MarkSign'
import { MomentFields } from './MomentFields'
import type { MomentPlace } from './momentPlace'
import { daysTouched, useMoment } from './useMoment'

interface MomentNoteProps {
  moment: MomentPlace
  layer: Layer | undefined
  /** The first and last day in view. */
  first: string
  last: string
  onMoment: (at: string) => void
  onDay: (day: string) => void
  /** One looks at the wall as it is again. */
  onEnd: () => void
}

/** Under a wall that shows what bringing a calendar back to a moment would do: which moment, how much it is, and doing it. */
export function MomentNote({ moment, layer, first, last, onMoment, onDay, onEnd }: MomentNoteProps) {
  const { fates, error, isSame, stays, mayBringBack, bringBack } = useMoment(moment, onEnd)
  const days = daysTouched(fates.flatMap(({ things }) => things))
  const before = days.findLast((day) => day < first)
  const after = days.find((day) => day > last)
  return (
    <section
      aria-label="Back to a moment"
      className="flex flex-wrap items-end gap-x-5 gap-y-2 border-t-2 border-ink bg-cement-100 px-4 py-2 max-sm:px-2"
    >
      <div className="flex flex-wrap items-end gap-2">
        {layer && (
          <span
            data-hue={layer.hue}
            className="mb-1 flex items-stretch border border-layer-edge bg-layer-tint text-layer-text"
          >
            <MarkBlock mark={layer.mark} size={22} />
            <span className="written px-2 py-0.5">{layer.name} as on</span>
          </span>
        )}
        <div className="grid w-72 grid-cols-[1fr_7rem] gap-2">
          <MomentFields at={moment.at} onChange={onMoment} />
        </div>
      </div>
      <div className="grid min-w-0 flex-1 gap-1 text-[13px] max-sm:order-3 max-sm:basis-full">
        <p role="status" className="flex flex-wrap gap-x-4 gap-y-1">
          {error && <span className="text-clash">{sentenceOf(error)}</span>}
          {isSame && 'Nothing has changed since then: everything is as it was.'}
          {fates.map(({ fate, words }) => (
            <span key={fate} data-fate={fate} className="moment-words">
              {words}
            </span>
          ))}
          {stays > 0 && <span className="text-cement-700">{stays} not yours to take back</span>}
        </p>
        <p className="flex gap-x-4">
          {before && (
            <Button look="link" onClick={() => onDay(before)}>
              ← {longDayText(before)}
            </Button>
          )}
          {after && (
            <Button look="link" onClick={() => onDay(after)}>
              {longDayText(after)} →
            </Button>
          )}
        </p>
      </div>
      <div className="flex items-center gap-2 max-sm:order-4">
        <Button onClick={onEnd}>Leave it as it is</Button>
        <Button look="main" disabled={!mayBringBack} onClick={bringBack}>
          Bring back to then
        </Button>
      </div>
    </section>
  )
}
