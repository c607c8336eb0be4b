import { useQuery } from '@tanstack/react-query'
import type { EventDraft } from '../../model/eventDraft'
import { addDays, dateOf, daysOf } from '../../model/times'
import { weekStart } from '../../model/views'
import { clockText, dateText, dayText, longDayText, weekdayText } from '../../reader/dates'
import { Choice } from '../../ui/Choice'
import { DateField } from '../../ui/DateField'
import { inputLook, TextField } from '../../ui/TextField'
import { ruleQuery } from './eventQueries'
import { placeInMonth, plainWish, type RuleWish, readRule, ruleText, weekdayCodes, weekdayOf } from './rule'

interface RepeatsFieldProps {
  form: EventDraft
  firstDay: number
  onChange: (rule: string | null) => void
}

const steps = [
  { value: 'day', label: 'day' },
  { value: 'week', label: 'week' },
  { value: 'month', label: 'month' },
  { value: 'year', label: 'year' },
] as const

/**
 * How it repeats: what people say, with the sentence and the next dates beside it. Weekdays and days of the month are those
 * of the clock the event lives on, and what is said is what saving for the whole of it comes to.
 */
export function RepeatsField({ form, firstDay, onChange }: RepeatsFieldProps) {
  const preview = useQuery({ ...ruleQuery(form), enabled: form.rule !== null && form.calendarId !== '' })
  const said = form.rule === null ? undefined : preview.data
  // A date that is carried takes the others along: until another rule is chosen, it is the one that comes of that.
  const rule = form.rule !== null && form.rule === form.before?.rule ? (said?.rule ?? form.rule) : form.rule
  const start = said?.zone ? dateOf(said.start) : daysOf(form.time).first
  const wish = rule === null ? null : readRule(rule, start)
  const words = form.repeats
  const set = (part: Partial<RuleWish>) => onChange(ruleText({ ...plainWish, ...wish, ...part }, start))
  const isOther = rule !== null && wish === null
  const kept = rule === null && words !== null
  return (
    <fieldset className="grid gap-2">
      <legend className="mb-1 text-[12px] text-cement-700">Repeats</legend>
      <select
        aria-label="Repeats"
        value={isOther || kept ? 'as it is' : wish ? wish.step : 'once'}
        onChange={(event) => {
          const step = steps.find((one) => one.value === event.target.value)?.value
          if (step) set({ ...plainWish, ends: wish?.ends ?? plainWish.ends, step })
          else if (event.target.value === 'once') onChange(null)
        }}
        className={inputLook}
      >
        <option value="once">Not at all</option>
        <option value="day">By days</option>
        <option value="week">By weeks</option>
        <option value="month">By months</option>
        <option value="year">By years</option>
        {(isOther || kept) && <option value="as it is">As it is now</option>}
      </select>
      {wish && (
        <>
          <div className="flex items-center gap-2">
            <span>every</span>
            <input
              type="number"
              aria-label="Every how many"
              min={1}
              max={99}
              value={wish.every}
              onChange={(event) => set({ every: Math.min(99, Math.max(1, Number(event.target.value) || 1)) })}
              className={`${inputLook} !w-16`}
            />
            <span>{wish.every === 1 ? wish.step : `${wish.step}s`}</span>
          </div>
          {wish.step === 'week' && <Weekdays wish={wish} start={start} firstDay={firstDay} onChange={set} />}
          {wish.step === 'month' && <InMonth wish={wish} start={start} onChange={set} />}
          <Ends wish={wish} start={start} onChange={set} />
        </>
      )}
      {said && (
        <div role="status" className="border-l-4 border-cement-300 pl-2 text-[13px]">
          {said.problem ? (
            <span className="text-clash">{said.problem}</span>
          ) : (
            <>
              {said.zone && (
                <span className="block">
                  On the clock of {said.zone.replaceAll('_', ' ')}: {longDayText(said.start)},{' '}
                  {clockText(said.start)} there.
                </span>
              )}
              <span className="block">{said.sentence}</span>
              <span className="block text-[12px] text-cement-700">
                {said.next.map(dayText).join(', ')}
                {said.next[0] && ` from ${dateText(said.next[0])}`}
              </span>
            </>
          )}
        </div>
      )}
      {kept && <p className="border-l-4 border-cement-300 pl-2 text-[13px]">{words}</p>}
    </fieldset>
  )
}

interface PartProps {
  wish: RuleWish
  start: string
  onChange: (part: Partial<RuleWish>) => void
}

function Weekdays({ wish, start, firstDay, onChange }: PartProps & { firstDay: number }) {
  const monday = weekStart(start, firstDay)
  const chosen = wish.weekdays.length > 0 ? wish.weekdays : [weekdayOf(start)]
  return (
    <div className="flex flex-wrap gap-1">
      {weekdayCodes.map((_, index) => {
        const day = addDays(monday, index)
        const code = weekdayOf(day)
        const isOn = chosen.includes(code)
        return (
          <button
            key={code}
            type="button"
            aria-pressed={isOn}
            onClick={() => {
              const next = isOn ? chosen.filter((one) => one !== code) : [...chosen, code]
              if (next.length > 0) onChange({ weekdays: next })
            }}
            className="rounded-control border border-cement-500 px-1.5 py-1 text-[12px] aria-pressed:border-ink aria-pressed:bg-ink aria-pressed:text-on-ink"
          >
            {weekdayText(day)}
          </button>
        )
      })}
    </div>
  )
}

const places = ['first', 'second', 'third', 'fourth', 'fifth']

function InMonth({ wish, start, onChange }: PartProps) {
  const day = Number(start.slice(8, 10))
  const name = longDayText(start).split(' ')[0]
  const isLast = addDays(start, 7).slice(5, 7) !== start.slice(5, 7)
  return (
    <>
      <Choice
        label="On"
        value={wish.by}
        onChange={(by) => onChange({ by })}
        options={[
          { value: 'date', label: `day ${day} of the month` },
          { value: 'weekday', label: `the ${places[placeInMonth(start) - 1]} ${name}` },
          ...(isLast || wish.by === 'lastWeekday'
            ? [{ value: 'lastWeekday' as const, label: `the last ${name}` }]
            : []),
          { value: 'lastDay', label: 'the last day' },
        ]}
      />
      {wish.by === 'date' && day > 28 && (
        <Choice
          label={`In months without a day ${day}`}
          value={wish.shortMonths}
          onChange={(shortMonths) => onChange({ shortMonths })}
          options={[
            { value: 'leaveOut', label: 'leave it out' },
            { value: 'lastDay', label: 'on the last day' },
          ]}
        />
      )}
    </>
  )
}

function Ends({ wish, start, onChange }: PartProps) {
  const { ends } = wish
  return (
    <div className="grid grid-cols-[repeat(auto-fit,minmax(9.75rem,1fr))] gap-2">
      <Choice
        label="Until"
        value={ends.how}
        onChange={(how) =>
          onChange({
            ends:
              how === 'until'
                ? { how, day: addDays(start, 84) }
                : how === 'times'
                  ? { how, count: 10 }
                  : { how: 'never' },
          })
        }
        options={[
          { value: 'never', label: 'for ever' },
          { value: 'until', label: 'a last day' },
          { value: 'times', label: 'a number of times' },
        ]}
      />
      {ends.how === 'until' && (
        <DateField
          label="Last day"
          value={ends.day}
          onChange={(day) => onChange({ ends: { how: 'until', day } })}
        />
      )}
      {ends.how === 'times' && (
        <TextField
          label="Times"
          type="number"
          value={String(ends.count)}
          onChange={(count) =>
            onChange({ ends: { how: 'times', count: Math.min(999, Math.max(1, Number(count) || 1)) } })
          }
        />
      )}
    </div>
  )
}
