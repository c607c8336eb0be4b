import { Lock, Repeat2 } from 'lucide-react'
import { type Brick, type Layer, titleOf } from '../../model/bricks'
import { dateOf } from '../../model/times'
import { clockText, wholeDayText } from '../../reader/dates'
import { MarkBlock } from '../../ui/MarkSign'
import { type BrickFate, fateWords } from './fate'

interface BrickFaceProps {
  brick: Brick
  layer: Layer
  /** One line only, as in a bar or a low brick. */
  flat: boolean
  whose: string | undefined
  /** Whether it clashes: hard, or only perhaps. */
  clash: boolean | undefined
  fate: BrickFate | undefined
}

/** What is written on a brick: its layer's mark, its hour, its title. */
export function BrickFace({ brick, layer, flat, whose, clash, fate }: BrickFaceProps) {
  const hour =
    brick.form === 'busy'
      ? clockText(brick.start)
      : brick.time.form === 'days'
        ? ''
        : clockText(brick.time.start)
  const title = brick.form === 'busy' ? 'Busy' : titleOf(brick.title, layer.purpose)
  const event = brick.form === 'event' ? brick : null
  const toBeSet = event?.time.form === 'days' && event.time.toBeSet
  const read = aloud(brick, layer, clash, fate)
  const mark = (
    <span className={`brick-mark flex h-4 ${flat ? 'shrink-0' : 'float-left mr-0.5 -ml-[3px]'}`}>
      <MarkBlock mark={layer.mark} size={15} />
    </span>
  )
  const words = (
    <>
      <span className="aloud">{read.before}</span>
      {hour && <span className="brick-hour font-bold">{hour}</span>}
      <span className="aloud">{read.between}</span>
      {hour && ' '}
      {whose && <span className="font-bold">{whose}: </span>}
      <span className={event?.cancelled ? 'line-through' : undefined} dir="auto">
        {title}
      </span>
      {event && event.dates > 1 && <span> ({event.dates.toLocaleString('en')} dates)</span>}
      {toBeSet && <span className="italic"> times to be set</span>}
      <span className="aloud">{read.after}</span>
      {event?.repeats && <Repeat2 size={11} className="ml-1 inline align-[-1px]" aria-hidden="true" />}
      {event?.private && <Lock size={10} className="ml-1 inline align-[-1px]" aria-hidden="true" />}
    </>
  )
  return flat ? (
    <span className="brick-bar flex h-full min-w-0 items-center">
      {mark}
      <span className="min-w-0 flex-1 truncate px-1">{words}</span>
    </span>
  ) : (
    <span className="brick-words block leading-4 hyphens-auto">
      {mark}
      {words}
    </span>
  )
}

interface Aloud {
  before: string
  between: string
  after: string
}

/**
 * What is read aloud around the words that are written, so that a brick is known without the wall around it:
 * "Tuesday 10 March, 14:00 to 16:00, Wheel basics, Classes".
 */
function aloud(brick: Brick, layer: Layer, clash: boolean | undefined, fate: BrickFate | undefined): Aloud {
  if (brick.form === 'busy')
    return {
      before: `${wholeDayText(brick.start)}, `,
      between: `${until(brick.start, brick.end)},`,
      after: `${brick.tentative ? ', perhaps' : ''}, ${layer.name}`,
    }
  const { time } = brick
  const state = [
    layer.name,
    ...(brick.cancelled ? ['called off'] : []),
    ...(brick.showAs === 'tentative' ? ['tentative'] : []),
    ...(brick.showAs === 'free' ? ['takes no time'] : []),
    ...(brick.private ? ['others see its times only'] : []),
    ...(brick.repeats ? ['repeats'] : []),
    ...(clash === undefined ? [] : [clash ? 'clashes' : 'may clash']),
    ...(fate ? [fateWords[fate]] : []),
  ]
  const after = `, ${state.join(', ')}`
  if (time.form !== 'days')
    return {
      before: `${wholeDayText(time.start)}, `,
      between: `${until(time.start, time.end)},`,
      after,
    }
  const days =
    time.first === time.last
      ? wholeDayText(time.first)
      : `${wholeDayText(time.first)} to ${wholeDayText(time.last)}`
  return { before: `${days}, ${time.toBeSet ? '' : 'all day, '}`, between: '', after }
}

const until = (start: string, end: string): string =>
  dateOf(start) === dateOf(end) || end.endsWith('00:00:00')
    ? ` to ${clockText(end)}`
    : ` to ${wholeDayText(end)}, ${clockText(end)}`
