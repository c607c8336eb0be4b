import { Lock, Repeat2 } from 'lucide-react'
import { clockText, daysText, wholeDayText } from '../../app/dates'
import { MarkBlock } from '../../ui/MarkSign'
import { type Brick, type Layer, titleOf } from './bricks'
import { dateOf } from './times'

interface BrickFaceProps {
  brick: Brick
  layer: Layer
  /** One line only, as in a bar or a low brick. */
  flat: boolean
  whose: string | undefined
}

/** What is written on a brick: its layer's mark, its hour, its title. */
export function BrickFace({ brick, layer, flat, whose }: BrickFaceProps) {
  const hour =
    brick.form === 'busy'
      ? clockText(brick.start)
      : brick.time.form === 'days'
        ? ''
        : clockText(brick.time.start)
  const title = brick.form === 'busy' ? 'Busy' : titleOf(brick.title)
  const event = brick.form === 'event' ? brick : null
  const toBeSet = event?.time.form === 'days' && event.time.toBeSet
  const mark = (
    <span className={`flex h-4 ${flat ? 'shrink-0' : 'float-left mr-0.5 -ml-[3px]'}`}>
      <MarkBlock mark={layer.mark} size={15} />
    </span>
  )
  const words = (
    <>
      {hour && <span className="font-bold">{hour} </span>}
      {whose && <span className="font-bold">{whose}: </span>}
      <span className={`${flat ? '' : 'break-words'} ${event?.cancelled ? 'line-through' : ''}`} dir="auto">
        {title}
      </span>
      {toBeSet && <span className="italic"> times to be set</span>}
      {event?.repeats && <Repeat2 size={11} className="ml-1 inline align-[-1px]" aria-hidden="true" />}
      {event?.private && <Lock size={10} className="ml-1 inline align-[-1px]" aria-hidden="true" />}
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

/** A brick as it is read aloud: "Tuesday 10 March, 14:00 to 16:00, Wheel basics, Classes". */
export function brickName(brick: Brick, layer: Layer, clash: boolean | undefined): string {
  if (brick.form === 'busy')
    return [
      wholeDayText(brick.start),
      hours(brick.start, brick.end),
      brick.tentative ? 'perhaps busy' : 'Busy',
      layer.name,
    ].join(', ')
  const { time } = brick
  const when =
    time.form === 'days'
      ? [daysText(time.first, time.last), ...(time.toBeSet ? ['times to be set'] : [])]
      : [wholeDayText(time.start), hours(time.start, time.end)]
  return [
    ...when,
    titleOf(brick.title),
    layer.name,
    ...(brick.cancelled ? ['called off'] : []),
    ...(brick.showAs === 'tentative' ? ['tentative'] : []),
    ...(brick.showAs === 'free' ? ['takes no time'] : []),
    ...(brick.private ? ['others see its times only'] : []),
    ...(brick.repeats ? ['repeats'] : []),
    ...(clash === undefined ? [] : [clash ? 'clashes' : 'may clash']),
  ].join(', ')
}

const hours = (start: string, end: string): string =>
  dateOf(start) === dateOf(end) || end.endsWith('00:00:00')
    ? `${clockText(start)} to ${clockText(end)}`
    : `${clockText(start)} to ${wholeDayText(end)}, ${clockText(end)}`
