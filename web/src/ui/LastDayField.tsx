import { useReader } from '../reader/person'
import { Check } from './Check'
import { DateField } from './DateField'

interface LastDayFieldProps {
  label: string
  /** The last day; null for no end. */
  value: string | null
  onChange: (day: string | null) => void
  problem?: string
}

/** Whether something is for a time only, and up to which day; three months at first. */
export function LastDayField({ label, value, onChange, problem }: LastDayFieldProps) {
  const { person, now } = useReader()
  const inThreeMonths = () =>
    Temporal.Instant.fromEpochMilliseconds(now())
      .toZonedDateTimeISO(person.zone)
      .toPlainDate()
      .add({ months: 3 })
      .toString()
  return (
    <>
      <Check
        label="For a time only"
        checked={value !== null}
        onChange={(checked) => onChange(checked ? inThreeMonths() : null)}
      />
      {value !== null && <DateField label={label} value={value} onChange={onChange} problem={problem} />}
    </>
  )
}
