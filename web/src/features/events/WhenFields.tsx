import { useState } from 'react'
import type { Time } from '../../model/bricks'
import {
  type DayPart,
  type Halves,
  hoursOf,
  ofDay,
  ofDays,
  partOf,
  timeProblem,
  withEnd,
  withForm,
  withStart,
} from '../../model/eventDraft'
import { addDays, dateOf, daysOf, localAt, minuteOf } from '../../model/times'
import { dayText } from '../../reader/dates'
import { Check } from '../../ui/Check'
import { Choice } from '../../ui/Choice'
import { ClockField } from '../../ui/ClockField'
import { DateField } from '../../ui/DateField'

interface WhenFieldsProps {
  time: Time
  zone: string
  /** The hours of half a day, where halves are offered. */
  halves: Halves | null
  /** For an absence: the first working day after it, where that is known. */
  back: string | null
  /** Whether hours of several days may become a series. */
  mayRepeat: boolean
  /** Another time, and another rule where one is named. */
  onChange: (time: Time, rule?: string | null) => void
}

const parts: readonly { value: DayPart | 'hours'; label: string }[] = [
  { value: 'whole', label: 'the whole day' },
  { value: 'morning', label: 'the morning, up to noon' },
  { value: 'afternoon', label: 'the afternoon, from noon on' },
]

/** When: whole days by first and last day, or hours with their days. */
export function WhenFields({ time, zone, halves, back, mayRepeat, onChange }: WhenFieldsProps) {
  const problem = timeProblem(time)
  const part = halves && partOf(time, halves, zone)
  const isOneDay = daysOf(time).first === daysOf(time).last
  /** The several days whose hours are being set, and whether they are those of each. */
  const [setting, setSetting] = useState<{ days: DaysTime; each: boolean } | null>(null)
  const setHours = (days: DaysTime, each: boolean, hours: HoursTime) => {
    setSetting({ days, each })
    const { time: next, rule } = ofDays(hours, days, each)
    onChange(next, rule)
  }
  return (
    <fieldset className="grid gap-2">
      <legend className="sr-only">When</legend>
      {halves && isOneDay && (
        <Choice
          label="Away for"
          value={part ?? 'hours'}
          onChange={(next) => {
            if (next !== 'hours') onChange(ofDay(daysOf(time).first, next, halves, zone))
          }}
          options={part ? parts : [...parts, { value: 'hours', label: 'some hours' }]}
        />
      )}
      <Check
        label="Whole days"
        checked={time.form === 'days'}
        onChange={(checked) => {
          if (!checked && time.form === 'days' && time.last > time.first && mayRepeat) {
            // Days that were kept free until their hours are known: the hours are those of each of them.
            setHours(time, time.toBeSet, hoursOf(time, zone))
          } else if (checked && setting) {
            setSetting(null)
            onChange(setting.days, null)
          } else onChange(withForm(time, checked, zone))
        }}
      />
      {time.form === 'days' && (
        <Check
          label="Times to be set later"
          checked={time.toBeSet}
          onChange={(checked) => onChange({ ...time, toBeSet: checked })}
        />
      )}
      {time.form === 'days' ? (
        <div className="grid grid-cols-[repeat(auto-fit,minmax(9.75rem,1fr))] gap-2">
          <DateField
            label="First day"
            value={time.first}
            onChange={(day) => onChange(withStart(time, day))}
          />
          <DateField
            label={halves ? 'Last day away' : 'Last day'}
            value={time.last}
            onChange={(day) => onChange(withEnd(time, day))}
            problem={problem}
            {...(halves
              ? back && { hint: `Back on ${dayText(back)}` }
              : { hint: `Over on ${dayText(addDays(time.last, 1))}` })}
          />
        </div>
      ) : (
        <>
          {setting && (
            <Choice
              label="These hours are"
              value={setting.each ? 'each' : 'through'}
              onChange={(next) => setHours(setting.days, next === 'each', time)}
              options={[
                {
                  value: 'each',
                  label: `of each day, ${dayText(setting.days.first)} to ${dayText(setting.days.last)}`,
                },
                { value: 'through', label: `one stretch, through to ${dayText(setting.days.last)}` },
              ]}
            />
          )}
          <Hours time={time} problem={problem} onChange={onChange} />
        </>
      )}
    </fieldset>
  )
}

type DaysTime = Extract<Time, { form: 'days' }>
type HoursTime = Exclude<Time, { form: 'days' }>

function Hours({
  time,
  problem,
  onChange,
}: {
  time: HoursTime
  problem: string | undefined
  onChange: (time: Time) => void
}) {
  const startDay = dateOf(time.start)
  const endDay = dateOf(time.end)
  const at = (day: string, clock: string) => localAt(day, minuteOf(`${day}T${clock}:00`))
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_5.5rem] gap-2">
      <DateField
        label="Begins on"
        value={startDay}
        onChange={(day) => onChange(withStart(time, at(day, time.start.slice(11, 16))))}
      />
      <ClockField
        label="at"
        value={time.start.slice(11, 16)}
        onChange={(clock) => onChange(withStart(time, at(startDay, clock)))}
      />
      <DateField
        label="Ends on"
        value={endDay}
        onChange={(day) => onChange(withEnd(time, at(day, time.end.slice(11, 16))))}
        problem={problem}
      />
      <ClockField
        label="at"
        value={time.end.slice(11, 16)}
        onChange={(clock) => onChange(withEnd(time, at(endDay, clock)))}
      />
    </div>
  )
}
