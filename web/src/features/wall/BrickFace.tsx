import { Repeat2 } from 'lucide-react'
import { clockText } from '../../app/dates'
import { MarkBlock } from '../../ui/MarkSign'
import { type Brick, type Layer, titleOf } from './bricks'

interface BrickFaceProps {
  brick: Brick
  layer: Layer
  /** One line only, as in a bar or a low brick. */
  flat: boolean
}

/** What is written on a brick: its layer's mark, its hour, its title. */
export function BrickFace({ brick, layer, flat }: BrickFaceProps) {
  const hour =
    brick.kind === 'busy'
      ? clockText(brick.start)
      : brick.time.form === 'days'
        ? ''
        : clockText(brick.time.start)
  const title = brick.kind === 'busy' ? 'Busy' : titleOf(brick.title)
  const isSeries = brick.kind === 'event' && brick.repeats !== null
  return (
    <span className={`flex h-full min-w-0 ${flat ? 'items-center' : 'items-start'}`}>
      <span className="flex h-[17px] shrink-0">
        <MarkBlock mark={layer.mark} size={17} />
      </span>
      <span className={`min-w-0 flex-1 px-1 ${flat ? 'truncate' : 'leading-[1.25]'}`}>
        {hour && <span className="font-bold">{hour} </span>}
        <span className={`written ${brick.kind === 'event' && brick.cancelled ? 'line-through' : ''}`}>
          {title}
        </span>
        {isSeries && <Repeat2 size={11} className="ml-1 inline align-[-1px]" aria-label="series" />}
      </span>
    </span>
  )
}

/** A brick as it is read aloud. */
export function brickName(brick: Brick, layer: Layer): string {
  const where = `in ${layer.name}`
  if (brick.kind === 'busy') return `Busy ${clockText(brick.start)} to ${clockText(brick.end)}, ${where}`
  const when =
    brick.time.form === 'days' ? 'all day' : `${clockText(brick.time.start)} to ${clockText(brick.time.end)}`
  const state = brick.cancelled ? ', cancelled' : brick.showAs === 'tentative' ? ', tentative' : ''
  return `${titleOf(brick.title)}, ${when}${state}, ${where}`
}
