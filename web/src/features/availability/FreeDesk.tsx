import { useQuery } from '@tanstack/react-query'
import { type FormEvent, Fragment, useState } from 'react'
import { sentenceOf } from '../../api/problem'
import { type FreeAnswer, freeQuery } from '../../model/availabilityQueries'
import type { Time } from '../../model/bricks'
import { dateOf, minutesBetween, plusMinutes } from '../../model/times'
import { clockText, longDayText } from '../../reader/dates'
import { Alert } from '../../ui/Alert'
import { Button } from '../../ui/Button'
import { Desk } from '../../ui/Desk'
import { Note } from '../../ui/Note'
import { inputLook } from '../../ui/TextField'
import { useActs } from '../../undo/acts'
import { freeTyped } from './freeTyped'

/** The time and the people that are asked about. */
export interface FreeForm {
  /** On the wall's clock. */
  start: string
  end: string
  people: readonly string[]
}

interface FreeDeskProps {
  form: FreeForm
  zone: string
  groupId: string | null
  today: string
  people: readonly { personId: string; name: string }[]
  onForm: (form: FreeForm) => void
  /** Makes an event then, for those who are free. */
  onMake: (time: Time, people: readonly string[]) => void
  onGaps: (people: readonly string[]) => void
  onGo: (day: string) => void
  onClose: () => void
}

type Free = FreeAnswer['people'][number]

const states: readonly { value: Free['presence']; label: string }[] = [
  { value: 'free', label: 'Free' },
  { value: 'outsideHours', label: 'Free, outside usual hours' },
  { value: 'tentative', label: 'Perhaps taken' },
  { value: 'busy', label: 'Busy' },
  { value: 'away', label: 'Away' },
]

/** Who is free then? The time is pressed on the wall or typed, and the answer stands here at once. */
export function FreeDesk({
  form,
  zone,
  groupId,
  today,
  people,
  onForm,
  onMake,
  onGaps,
  onGo,
  onClose,
}: FreeDeskProps) {
  const acts = useActs()
  const [typed, setTyped] = useState('')
  const asked = form.people.length > 0 ? form.people : people.map((one) => one.personId)
  const time: Time = { form: 'clock', start: form.start, end: form.end, zone }
  const answer = useQuery({ ...freeQuery(asked, [], time, groupId), enabled: asked.length > 0 })
  const ask = (event: FormEvent) => {
    event.preventDefault()
    const read = freeTyped(typed, today, people)
    if (read.unknown.length > 0) {
      acts.done(`“${read.unknown.join(' ')}” is no day, time or name here. Type as in “Thu 14:00 Priya”.`)
      return
    }
    const date = read.date ?? dateOf(form.start)
    const start = read.from ? `${date}T${read.from}:00` : `${date}${form.start.slice(10)}`
    const end = read.to
      ? `${date}T${read.to}:00`
      : plusMinutes(start, Math.max(1, minutesBetween(form.start, form.end)))
    onForm({ start, end, people: read.people.length > 0 ? read.people : form.people })
    if (date !== dateOf(form.start)) onGo(date)
    setTyped('')
  }
  const at = (start: string) => {
    onForm({ ...form, start, end: plusMinutes(start, minutesBetween(form.start, form.end)) })
    onGo(dateOf(start))
  }
  const found = answer.data?.people ?? []
  const free = found.filter((one) => one.presence === 'free' || one.presence === 'outsideHours')
  const unsure = found.filter((one) => one.knowledge === 'seen' && !one.isPlace)
  return (
    <Desk title="Who is free?" onClose={onClose} half>
      <form onSubmit={ask} className="mb-3 grid gap-1">
        <input
          aria-label="A day, a time and names"
          placeholder="Thu 14:00 Priya Tomasz"
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
          autoComplete="off"
          className={inputLook}
        />
        <Note>Or press a time on the wall.</Note>
      </form>
      <h3 className="text-base" role="status">
        {longDayText(form.start)}, {clockText(form.start)} – {clockText(form.end)}
        {found.length > 0 && (
          <span className="block font-text text-[13px] font-normal">
            {free.length} of {found.length} {free.length === 1 ? 'is' : 'are'} free
          </span>
        )}
      </h3>
      {form.people.length > 0 && (
        <button type="button" className="underline" onClick={() => onForm({ ...form, people: [] })}>
          Everybody instead
        </button>
      )}
      {answer.isError && <Alert>{sentenceOf(answer.error)}</Alert>}
      {states.map(({ value, label }) => {
        const those = found.filter((one) => one.presence === value)
        return (
          those.length > 0 && (
            <section key={value} aria-label={label} className="mt-3">
              <h4 className="mb-1 text-[12px] text-cement-700">{label}</h4>
              <ul className="grid gap-1">
                {those.map((one) => (
                  <li
                    key={one.id}
                    data-presence={value}
                    className="border-l-4 border-cement-300 pl-2 data-[presence=free]:border-ok"
                  >
                    <span className="written font-bold">{one.name}</span>
                    {one.local && (
                      <span className="text-[12px] text-cement-700"> {clockText(one.local)} there</span>
                    )}
                    {one.by.length === 0 &&
                      (value === 'busy' || value === 'away' || value === 'tentative') && (
                        <span className="block text-[13px]">with what is not told</span>
                      )}
                    {one.by.length > 0 && (
                      <span className="written block text-[13px]">
                        {one.by.map((title) => (title === '' ? 'busy' : title)).join(', ')}
                      </span>
                    )}
                    {(one.earlier || one.later) && (
                      <span className="block text-[12px]">
                        free at{' '}
                        {[one.earlier, one.later].map(
                          (start, index) =>
                            start && (
                              <Fragment key={start}>
                                {index > 0 && one.earlier && ' or '}
                                <button type="button" onClick={() => at(start)} className="underline">
                                  {dateOf(start) === dateOf(form.start)
                                    ? clockText(start)
                                    : `${longDayText(start)}, ${clockText(start)}`}
                                </button>
                              </Fragment>
                            ),
                        )}
                      </span>
                    )}
                  </li>
                ))}
              </ul>
            </section>
          )
        )
      })}
      {unsure.length > 0 && (
        <p className="written mt-3 text-[12px] text-cement-700">
          Of {unsure.map((one) => one.name).join(', ')} only what lies on your layers is known.
        </p>
      )}
      {found.length > 0 && (
        <div className="mt-4 flex flex-wrap gap-2">
          {free.length > 0 && (
            <Button
              look="main"
              onClick={() => onMake(time, form.people.length > 0 ? free.map((one) => one.id) : [])}
            >
              Make an event then
            </Button>
          )}
          {free.length < found.length && answer.data?.later && (
            <Button onClick={() => at(answer.data.later ?? form.start)}>
              {form.people.length > 0 ? 'Next for them' : 'Next for all'}: {longDayText(answer.data.later)},{' '}
              {clockText(answer.data.later)}
            </Button>
          )}
          <Button onClick={() => onGaps(asked)}>All gaps</Button>
        </div>
      )}
    </Desk>
  )
}
