import { type Gap, gapTime } from '../../model/availabilityQueries'
import { dateOf, minutesBetween } from '../../model/times'
import { clockText, lengthText, longDayText } from '../../reader/dates'
import { Button } from '../../ui/Button'

interface GapListProps {
  gaps: readonly Gap[]
  more: boolean
  /** Whether they are those of an earlier question. */
  waits: boolean
  /** How many of those who are one of some are wanted. */
  count: number
  kept: readonly Gap[]
  nameOf: (id: string) => string
  onChoose: (gap: Gap) => void
  onKeep: (kept: readonly Gap[]) => void
  /** What is kept is put to people. */
  onPropose: () => void
}

/** The gaps found, the best first: one is made use of at once, or several are kept and put to people. */
export function GapList({
  gaps,
  more,
  waits,
  count,
  kept,
  nameOf,
  onChoose,
  onKeep,
  onPropose,
}: GapListProps) {
  const times = kept.map(gapTime)
  return (
    <section aria-label="Gaps found" aria-busy={waits}>
      <h3 className="mb-1 text-base" role="status">
        {more ? 'The best of many' : `${gaps.length} ${gaps.length === 1 ? 'gap' : 'gaps'}`}
      </h3>
      <ol className="grid gap-1">
        {gaps.map((gap) => (
          <GapItem
            key={`${gap.start}/${gap.end}/${gap.missing.join()}`}
            gap={gap}
            count={count}
            isKept={times.includes(gapTime(gap))}
            nameOf={nameOf}
            onChoose={() => onChoose(gap)}
            onKeep={() =>
              onKeep(
                times.includes(gapTime(gap))
                  ? kept.filter((one) => gapTime(one) !== gapTime(gap))
                  : [...kept, gap].toSorted((a, b) => a.suggested.localeCompare(b.suggested)),
              )
            }
          />
        ))}
      </ol>
      {kept.length > 0 && (
        <div className="sticky -bottom-5 -mx-4 mt-2 grid gap-1.5 border-t-2 border-ink bg-cement-50 px-4 pt-2 pb-4">
          <p role="status">
            {kept.length === 1
              ? 'One time is kept. Keep another to propose both.'
              : `${kept.length} times are kept.`}
          </p>
          <div className="flex items-center gap-3">
            <Button look="main" disabled={kept.length < 2} onClick={onPropose}>
              Propose these
            </Button>
            <Button look="link" onClick={() => onKeep([])}>
              Let go
            </Button>
          </div>
        </div>
      )}
    </section>
  )
}

interface GapItemProps {
  gap: Gap
  count: number
  isKept: boolean
  nameOf: (id: string) => string
  onChoose: () => void
  onKeep: () => void
}

function GapItem({ gap, count, isKept, nameOf, onChoose, onKeep }: GapItemProps) {
  return (
    <li className="flex items-stretch border border-gap-edge bg-gap-tint">
      <button
        type="button"
        onClick={onChoose}
        title="Make an event there"
        className="written min-w-0 flex-1 px-2 py-1.5 text-left hover:bg-gap/40"
      >
        <span className="block font-bold">
          {longDayText(gap.suggested)}, {clockText(gap.suggested)}
        </span>
        <span className="block text-[12px] text-cement-900">
          {freeText(gap)}
          {!gap.inHours && '; outside usual hours'}
          {gap.any.length > 0 && `; with ${gap.any.slice(0, count).map(nameOf).join(', ')}`}
        </span>
        {gap.missing.length > 0 && (
          <span className="block text-[12px] text-cement-900">
            without {gap.missing.map(nameOf).join(', ')}
          </span>
        )}
        {gap.elsewhere.map((there) => (
          <span key={there.zone} className="block text-[12px] text-cement-900">
            {clockText(there.start)}
            {dateOf(there.start) !== dateOf(gap.suggested) && ` on ${longDayText(there.start)}`} for{' '}
            {there.people.map(nameOf).join(', ')}
          </span>
        ))}
      </button>
      <label
        title="Keep it, to propose several"
        className="grid w-8 shrink-0 scroll-mb-28 cursor-pointer place-items-center border-l border-gap-edge hover:bg-gap/40"
      >
        <span className="sr-only">
          Keep {longDayText(gap.suggested)}, {clockText(gap.suggested)}
        </span>
        <input
          type="checkbox"
          checked={isKept}
          onChange={onKeep}
          // What has the focus is not to lie under the bar with what is kept.
          className="size-4 scroll-mb-28 accent-ink"
        />
      </label>
    </li>
  )
}

/** "free 10:00 – 13:00", or for how long where it goes over days. */
function freeText(gap: Gap): string {
  return dateOf(gap.start) === dateOf(gap.end)
    ? `free ${clockText(gap.start)} – ${clockText(gap.end)}`
    : `free for ${lengthText(minutesBetween(gap.start, gap.end))}, from ${longDayText(gap.start)} ${clockText(gap.start)}`
}
