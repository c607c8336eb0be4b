import { type ReactNode, useId, useState } from 'react'
import { fieldProblem, sentenceOf } from '../../api/problem'
import { DateField } from '../../app/DateField'
import { clockText, lengthText, longDayText } from '../../app/dates'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { inputLook } from '../../ui/TextField'
import { Desk } from '../wall/Desk'
import { addDays, dateOf, daysBetween, minutesBetween } from '../wall/times'
import type { Gap, GapAnswer } from './availabilityQueries'
import { type GapForm, type Need, namedIn } from './gapForm'

interface GapDeskProps {
  form: GapForm
  people: readonly { personId: string; name: string }[]
  places: readonly { calendarId: string; name: string }[]
  answer: GapAnswer | undefined
  error: unknown
  onForm: (form: GapForm) => void
  /** A gap is chosen: the new event is filled in. */
  onChoose: (gap: Gap) => void
  /** Somewhere else on the wall is looked at. */
  onGo: (day: string) => void
  onClose: () => void
}

const needs: readonly { value: Need; label: string }[] = [
  { value: 'required', label: 'has to be there' },
  { value: 'optional', label: 'is welcome' },
  { value: 'any', label: 'is one of some' },
]

const lengths = [15, 30, 45, 60, 90, 120, 180, 240, 480]
const spans = [1, 2, 4, 12]
const margins = [0, 15, 30, 60]

/** When can they all? Who is looked for, how long, where; and the gaps, the best first, all of them lit on the wall. */
export function GapDesk({
  form,
  people,
  places,
  answer,
  error,
  onForm,
  onChoose,
  onGo,
  onClose,
}: GapDeskProps) {
  const names = new Map([
    ...people.map((one) => [one.personId, one.name] as const),
    ...places.map((one) => [one.calendarId, one.name] as const),
    ...(answer?.people ?? []).map((one) => [one.id, one.name] as const),
  ])
  const nameOf = (id: string) => names.get(id) ?? 'somebody'
  const [ownDates, setOwnDates] = useState(false)
  const weeks = (daysBetween(form.from, form.to) + 1) / 7
  const isByWeeks = !ownDates && spans.includes(weeks)
  const set = (part: Partial<GapForm>) => onForm({ ...form, ...part })
  const seen = (answer?.people ?? []).filter((one) => one.knowledge === 'seen')
  return (
    <Desk title="Gaps" onClose={onClose}>
      <div className="grid gap-3">
        <fieldset className="grid gap-1.5">
          <legend className="mb-1 text-[12px] text-cement-700">Who and what has to be free</legend>
          {form.people.map((one) => (
            <div key={one.id} className="flex items-center gap-1.5">
              <span className="written min-w-0 flex-1 truncate font-bold">{nameOf(one.id)}</span>
              <select
                aria-label={`How much ${nameOf(one.id)} is needed`}
                value={one.need}
                onChange={(event) =>
                  set({
                    people: form.people.map((other) =>
                      other.id === one.id ? { ...other, need: event.target.value as Need } : other,
                    ),
                  })
                }
                className="rounded-control border border-cement-500 bg-surface py-0.5 text-[13px]"
              >
                {needs.map((need) => (
                  <option key={need.value} value={need.value}>
                    {need.label}
                  </option>
                ))}
              </select>
              <Away
                name={nameOf(one.id)}
                onAway={() => set({ people: form.people.filter((other) => other.id !== one.id) })}
              />
            </div>
          ))}
          {form.places.map((id) => (
            <div key={id} className="flex items-center gap-1.5">
              <span className="written min-w-0 flex-1 truncate font-bold">{nameOf(id)}</span>
              <span className="text-[13px] text-cement-700">has to be free</span>
              <Away
                name={nameOf(id)}
                onAway={() => set({ places: form.places.filter((other) => other !== id) })}
              />
            </div>
          ))}
          {form.people.some((one) => one.need === 'any') && (
            <Choice
              label="How many of those who are one of some"
              value={String(Math.min(form.count, form.people.filter((one) => one.need === 'any').length))}
              onChange={(count) => set({ count: Number(count) })}
              options={form.people
                .filter((one) => one.need === 'any')
                .map((_, index) => ({ value: String(index + 1), label: `any ${index + 1}` }))}
            />
          )}
          <Adding
            offered={[
              ...people
                .filter((one) => !form.people.some((other) => other.id === one.personId))
                .map((one) => ({ id: one.personId, name: one.name, isPlace: false })),
              ...places
                .filter((one) => !form.places.includes(one.calendarId))
                .map((one) => ({ id: one.calendarId, name: one.name, isPlace: true })),
            ]}
            onAdd={(one) =>
              set(
                one.isPlace
                  ? { places: [...form.places, one.id] }
                  : { people: [...form.people, { id: one.id, need: 'required' }] },
              )
            }
          />
        </fieldset>
        <div className="grid grid-cols-2 gap-2">
          <Choice
            label="For"
            value={String(form.minutes)}
            onChange={(minutes) => set({ minutes: Number(minutes) })}
            options={[...new Set([...lengths, form.minutes])]
              .toSorted((a, b) => a - b)
              .map((minutes) => ({ value: String(minutes), label: lengthText(minutes) }))}
          />
          <Choice
            label="Usual hours"
            value={form.hours}
            onChange={(hours) => set({ hours })}
            options={[
              { value: 'preferred', label: 'come first' },
              { value: 'kept', label: 'only in them' },
            ]}
          />
          <div className="col-span-2 grid gap-2">
            <Choice
              label="In"
              value={isByWeeks ? String(weeks) : 'dates'}
              onChange={(chosen) => {
                setOwnDates(chosen === 'dates')
                if (chosen !== 'dates') set({ to: addDays(form.from, Number(chosen) * 7 - 1) })
              }}
              options={[
                ...spans.map((one) => ({
                  value: String(one),
                  label: `${one === 1 ? 'a week' : `${one} weeks`} from ${longDayText(form.from)}`,
                })),
                { value: 'dates', label: 'from one day to another' },
              ]}
              problem={fieldProblem(error, 'to')}
            />
            {!isByWeeks && (
              <>
                <DateField
                  label="First day"
                  value={form.from}
                  onChange={(from) => set({ from, ...(form.to < from ? { to: from } : {}) })}
                />
                <DateField label="Last day" value={form.to} onChange={(to) => set({ to })} />
              </>
            )}
          </div>
          <Choice
            label="Free before it"
            value={String(form.before)}
            onChange={(before) => set({ before: Number(before) })}
            options={margins.map(marginOption)}
          />
          <Choice
            label="and after"
            value={String(form.after)}
            onChange={(after) => set({ after: Number(after) })}
            options={margins.map(marginOption)}
          />
        </div>
        {error !== null && error !== undefined && !fieldProblem(error, 'to') && (
          <p role="alert" className="text-clash">
            {sentenceOf(error)}
          </p>
        )}
        {seen.length > 0 && (
          <p className="written text-[12px] text-cement-700">
            Of {seen.map((one) => one.name).join(', ')} only what lies on your layers is known.
          </p>
        )}
        {answer?.why && <NoGap why={answer.why} form={form} nameOf={nameOf} onForm={onForm} onGo={onGo} />}
        {answer && answer.gaps.length > 0 && (
          <section aria-label="Gaps found">
            <h3 className="mb-1 text-base" role="status">
              {answer.more
                ? 'The best of many'
                : `${answer.gaps.length} ${answer.gaps.length === 1 ? 'gap' : 'gaps'}`}
            </h3>
            <ol className="grid gap-1">
              {answer.gaps.map((gap) => (
                <GapItem
                  key={`${gap.start}/${gap.end}/${gap.missing.join()}`}
                  gap={gap}
                  form={form}
                  nameOf={nameOf}
                  onChoose={() => onChoose(gap)}
                />
              ))}
            </ol>
          </section>
        )}
      </div>
    </Desk>
  )
}

const marginOption = (minutes: number) => ({
  value: String(minutes),
  label: minutes === 0 ? 'no time' : lengthText(minutes),
})

function Away({ name, onAway }: { name: string; onAway: () => void }) {
  return (
    <button
      type="button"
      aria-label={`Leave ${name} out`}
      onClick={onAway}
      className="rounded-control px-1.5 hover:bg-cement-200"
    >
      ×
    </button>
  )
}

interface Offered {
  id: string
  name: string
  isPlace: boolean
}

function Adding({ offered, onAdd }: { offered: readonly Offered[]; onAdd: (one: Offered) => void }) {
  const id = useId()
  const [typed, setTyped] = useState('')
  const words = typed.trim().toLowerCase()
  const fitting =
    words === '' ? [] : offered.filter((one) => one.name.toLowerCase().includes(words)).slice(0, 6)
  const add = (one: Offered) => {
    onAdd(one)
    setTyped('')
  }
  return (
    <div className="grid gap-1">
      <label htmlFor={id} className="sr-only">
        Somebody or some place more
      </label>
      <input
        id={id}
        value={typed}
        autoComplete="off"
        placeholder="and a person or place …"
        onChange={(event) => setTyped(event.target.value)}
        onKeyDown={(event) => {
          if (event.key !== 'Enter' || !fitting[0]) return
          event.preventDefault()
          add(fitting[0])
        }}
        className={inputLook}
      />
      {words !== '' && (
        <ul className="border border-cement-300 bg-surface">
          {fitting.map((one) => (
            <li key={one.id}>
              <button
                type="button"
                onClick={() => add(one)}
                className="written w-full px-2 py-1 text-left hover:bg-cement-200"
              >
                {one.name}
                {one.isPlace && <span className="text-cement-700"> (place)</span>}
              </button>
            </li>
          ))}
          {fitting.length === 0 && <li className="px-2 py-1 text-cement-700">Nobody of that name here.</li>}
        </ul>
      )}
    </div>
  )
}

interface GapItemProps {
  gap: Gap
  form: GapForm
  nameOf: (id: string) => string
  onChoose: () => void
}

function GapItem({ gap, form, nameOf, onChoose }: GapItemProps) {
  const named = namedIn(form, gap.missing, gap.any)
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
          {gap.any.length > 0 && `; with ${gap.any.slice(0, form.count).map(nameOf).join(', ')}`}
        </span>
        {gap.missing.length > 0 && (
          <span className="block text-[12px] text-cement-900">
            without {gap.missing.map(nameOf).join(', ')}
          </span>
        )}
        {gap.elsewhere
          .filter((there) => there.people.some((id) => named.includes(id)))
          .map((there) => (
            <span key={there.zone} className="block text-[12px] text-cement-900">
              {clockText(there.start)}
              {dateOf(there.start) !== dateOf(gap.suggested) && ` on ${longDayText(there.start)}`} for{' '}
              {there.people
                .filter((id) => named.includes(id))
                .map(nameOf)
                .join(', ')}
            </span>
          ))}
      </button>
    </li>
  )
}

/** "free 10:00 – 13:00", or for how long where it goes over days. */
function freeText(gap: Gap): string {
  return dateOf(gap.start) === dateOf(gap.end)
    ? `free ${clockText(gap.start)} – ${clockText(gap.end)}`
    : `free for ${lengthText(minutesBetween(gap.start, gap.end))}, from ${longDayText(gap.start)} ${clockText(gap.start)}`
}

interface NoGapProps {
  why: NonNullable<GapAnswer['why']>
  form: GapForm
  nameOf: (id: string) => string
  onForm: (form: GapForm) => void
  onGo: (day: string) => void
}

/** No gap: who stands in the way most, and what would make room, each done by a press. */
function NoGap({ why, form, nameOf, onForm, onGo }: NoGapProps): ReactNode {
  const alone = why.obstacles.filter((one) => one.first !== null)
  const [most] = why.obstacles
  const longest = why.longestStart && why.longestEnd ? minutesBetween(why.longestStart, why.longestEnd) : 0
  const shorter = lengths.findLast((minutes) => minutes <= longest && minutes < form.minutes)
  return (
    <section aria-label="No gap" className="grid gap-2 border-l-4 border-ink pl-3">
      <p role="status" className="written font-bold">
        There is no gap of {lengthText(form.minutes)} in these days.
      </p>
      {alone.length === 0 && most && (
        <p className="written">
          {nameOf(most.id)} is taken most ({lengthText(most.minutes)}), and not alone in the way.
        </p>
      )}
      {alone.slice(0, 3).map(
        (one) =>
          one.first && (
            <div key={one.id}>
              <Button
                onClick={() => {
                  onForm(without(form, one.id))
                  onGo(dateOf(one.first ?? form.from))
                }}
              >
                Without {nameOf(one.id)}: {longDayText(one.first)}, {clockText(one.first)}
              </Button>
            </div>
          ),
      )}
      {shorter && why.longestStart && (
        <div>
          <Button
            onClick={() => {
              onForm({ ...form, minutes: shorter })
              onGo(dateOf(why.longestStart ?? form.from))
            }}
          >
            For {lengthText(shorter)}: {longDayText(why.longestStart)}, {clockText(why.longestStart)}
          </Button>
        </div>
      )}
      {form.hours === 'kept' && (
        <div>
          <Button onClick={() => onForm({ ...form, hours: 'preferred' })}>Also outside usual hours</Button>
        </div>
      )}
    </section>
  )
}

/** Somebody is welcome instead of needed; a place is left out. */
const without = (form: GapForm, id: string): GapForm => ({
  ...form,
  people: form.people.map((one) => (one.id === id ? { ...one, need: 'optional' } : one)),
  places: form.places.filter((one) => one !== id),
})
