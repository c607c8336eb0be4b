import { useId, useState } from 'react'
import { Choice } from '../../ui/Choice'
import { inputLook } from '../../ui/TextField'
import type { GapForm, Need } from './gapForm'

const needs: readonly { value: Need; label: string }[] = [
  { value: 'required', label: 'has to be there' },
  { value: 'optional', label: 'is welcome' },
  { value: 'any', label: 'is one of some' },
]

interface GapPeopleProps {
  form: GapForm
  people: readonly { personId: string; name: string }[]
  places: readonly { calendarId: string; name: string }[]
  nameOf: (id: string) => string
  onChange: (part: Partial<GapForm>) => void
}

/** Who and what has to be free for a gap. */
export function GapPeople({ form, people, places, nameOf, onChange }: GapPeopleProps) {
  return (
    <fieldset className="grid gap-1.5">
      <legend className="mb-1 text-[12px] text-cement-700">Who and what has to be free</legend>
      {form.people.map((one) => (
        <div key={one.id} className="flex items-center gap-1.5">
          <span className="written min-w-0 flex-1 truncate font-bold">{nameOf(one.id)}</span>
          <select
            aria-label={`How much ${nameOf(one.id)} is needed`}
            value={one.need}
            onChange={(event) =>
              onChange({
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
            onAway={() => onChange({ people: form.people.filter((other) => other.id !== one.id) })}
          />
        </div>
      ))}
      {form.places.map((id) => (
        <div key={id} className="flex items-center gap-1.5">
          <span className="written min-w-0 flex-1 truncate font-bold">{nameOf(id)}</span>
          <span className="text-[13px] text-cement-700">has to be free</span>
          <Away
            name={nameOf(id)}
            onAway={() => onChange({ places: form.places.filter((other) => other !== id) })}
          />
        </div>
      ))}
      {form.people.some((one) => one.need === 'any') && (
        <Choice
          label="How many of those who are one of some"
          value={String(Math.min(form.count, form.people.filter((one) => one.need === 'any').length))}
          onChange={(count) => onChange({ count: Number(count) })}
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
          onChange(
            one.isPlace
              ? { places: [...form.places, one.id] }
              : { people: [...form.people, { id: one.id, need: 'required' }] },
          )
        }
      />
    </fieldset>
  )
}

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
