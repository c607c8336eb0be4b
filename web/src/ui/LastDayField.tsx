import { Temporal } from 'temporal-polyfill'
import { useReader } from '../reader/person'
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
      <label className="flex items-center gap-2">
        <input
          type="checkbox"
          checked={value !== null}
          onChange={(event) => onChange(event.target.checked ? inThreeMonths() : null)}
          className="size-4 accent-ink"
        />
        For a time only
      </label>
      {value !== null && <DateField label={label} value={value} onChange={onChange} problem={problem} />}
    </>
  )
}
