import { type ReactNode, useId, useState } from 'react'
import { fieldProblem, sentenceOf } from '../../api/problem'
import type { Gap, GapAnswer } from '../../model/availabilityQueries'
import { addDays, daysBetween } from '../../model/times'
import { lengthText, longDayText } from '../../reader/dates'
import { Choice } from '../../ui/Choice'
import { DateField } from '../../ui/DateField'
import { Desk } from '../../ui/Desk'
import { inputLook } from '../../ui/TextField'
import { GapList } from './GapList'
import { type GapForm, lengths, type Need } from './gapForm'
import { NoGap } from './NoGap'

interface GapDeskProps {
  form: GapForm
  people: readonly { personId: string; name: string }[]
  places: readonly { calendarId: string; name: string }[]
  answer: GapAnswer | undefined
  error: unknown
  /** Whether the answer is that of an earlier question. */
  waits: boolean
  onForm: (form: GapForm) => void
  /** A gap is chosen: the new event is filled in. */
  onChoose: (gap: Gap) => void
  /** What is kept, to be put to people. */
  kept: readonly Gap[]
  onKeep: (kept: readonly Gap[]) => void
  onPropose: () => void
  /** Somewhere else on the wall is looked at. */
  onGo: (day: string) => void
  onClose: () => void
  /** What stands below: questions that wait to be settled. */
  children?: ReactNode
}

const needs: readonly { value: Need; label: string }[] = [
  { value: 'required', label: 'has to be there' },
  { value: 'optional', label: 'is welcome' },
  { value: 'any', label: 'is one of some' },
]

const spans = [1, 2, 4, 12]
const margins = [0, 15, 30, 60]

/** When can they all? Who is looked for, how long, where; and the gaps, the best first, all of them lit on the wall. */
export function GapDesk({
  form,
  people,
  places,
  answer,
  error,
  waits,
  onForm,
  onChoose,
  kept,
  onKeep,
  onPropose,
  onGo,
  onClose,
  children,
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
        <div className="grid grid-cols-[repeat(auto-fit,minmax(9.75rem,1fr))] gap-2">
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
        {answer?.lookedThrough && (
          <p role="status" className="border-l-4 border-ink pl-3 text-[13px]">
            Looked as far as {longDayText(answer.lookedThrough)}: with so many people or choices, ask for
            fewer days at once.
          </p>
        )}
        {answer?.why && <NoGap why={answer.why} form={form} nameOf={nameOf} onForm={onForm} onGo={onGo} />}
        {answer && answer.gaps.length > 0 && (
          <GapList
            gaps={answer.gaps}
            more={answer.more}
            waits={waits}
            count={form.count}
            kept={kept}
            nameOf={nameOf}
            onChoose={onChoose}
            onKeep={onKeep}
            onPropose={onPropose}
          />
        )}
        {children}
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
