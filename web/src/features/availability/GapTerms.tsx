import { useState } from 'react'
import { fieldProblem } from '../../api/problem'
import { addDays, daysBetween } from '../../model/times'
import { lengthText, longDayText } from '../../reader/dates'
import { Choice } from '../../ui/Choice'
import { DateField } from '../../ui/DateField'
import { type GapForm, lengths } from './gapForm'

const spans = [1, 2, 4, 12]
const margins = [0, 15, 30, 60]

interface GapTermsProps {
  form: GapForm
  error: unknown
  onChange: (part: Partial<GapForm>) => void
}

/** How long a gap has to be, on which days, and how much is to be free around it. */
export function GapTerms({ form, error, onChange }: GapTermsProps) {
  const [ownDates, setOwnDates] = useState(false)
  const weeks = (daysBetween(form.from, form.to) + 1) / 7
  const isByWeeks = !ownDates && spans.includes(weeks)
  return (
    <div className="grid grid-cols-[repeat(auto-fit,minmax(9.75rem,1fr))] gap-2">
      <Choice
        label="For"
        value={String(form.minutes)}
        onChange={(minutes) => onChange({ minutes: Number(minutes) })}
        options={[...new Set([...lengths, form.minutes])]
          .toSorted((a, b) => a - b)
          .map((minutes) => ({ value: String(minutes), label: lengthText(minutes) }))}
      />
      <Choice
        label="Usual hours"
        value={form.hours}
        onChange={(hours) => onChange({ hours })}
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
            if (chosen !== 'dates') onChange({ to: addDays(form.from, Number(chosen) * 7 - 1) })
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
              onChange={(from) => onChange({ from, ...(form.to < from ? { to: from } : {}) })}
            />
            <DateField label="Last day" value={form.to} onChange={(to) => onChange({ to })} />
          </>
        )}
      </div>
      <Choice
        label="Free before it"
        value={String(form.before)}
        onChange={(before) => onChange({ before: Number(before) })}
        options={margins.map(marginOption)}
      />
      <Choice
        label="and after"
        value={String(form.after)}
        onChange={(after) => onChange({ after: Number(after) })}
        options={margins.map(marginOption)}
      />
    </div>
  )
}

const marginOption = (minutes: number) => ({
  value: String(minutes),
  label: minutes === 0 ? 'no time' : lengthText(minutes),
})
