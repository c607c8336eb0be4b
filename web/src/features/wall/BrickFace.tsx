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
  const mark = (
    <span className={`flex h-4 ${flat ? 'shrink-0' : 'float-left mr-0.5 -ml-[3px]'}`}>
      <MarkBlock mark={layer.mark} size={15} />
    </span>
  )
  const words = (
    <>
      {hour && <span className="font-bold">{hour} </span>}
      <span
        className={`${flat ? '' : 'break-words'} ${brick.kind === 'event' && brick.cancelled ? 'line-through' : ''}`}
        dir="auto"
      >
        {title}
      </span>
      {isSeries && <Repeat2 size={11} className="ml-1 inline align-[-1px]" aria-hidden="true" />}
    </>
  )
  return flat ? (
    <span className="flex h-full min-w-0 items-center">
      {mark}
      <span className="min-w-0 flex-1 truncate px-1">{words}</span>
    </span>
  ) : (
    <span className="brick-words block h-full overflow-hidden pl-[3px] leading-4 hyphens-auto">
      {mark}
      {words}
    </span>
  )
}

/** A brick as it is read aloud; it begins with what is written on it. */
export function brickName(brick: Brick, layer: Layer): string {
  const where = `in ${layer.name}`
  if (brick.kind === 'busy') return `${clockText(brick.start)} Busy, to ${clockText(brick.end)}, ${where}`
  const title = titleOf(brick.title)
  const state = brick.cancelled ? ', cancelled' : brick.showAs === 'tentative' ? ', tentative' : ''
  return brick.time.form === 'days'
    ? `${title}, all day${state}, ${where}`
    : `${clockText(brick.time.start)} ${title}, to ${clockText(brick.time.end)}${state}, ${where}`
}
