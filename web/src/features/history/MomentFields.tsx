import { useReader } from '../../reader/person'
import { ClockField } from '../../ui/ClockField'
import { DateField } from '../../ui/DateField'

/** A moment as a day and an hour on the reader's clock. */
export function MomentFields({ at, onChange }: { at: string; onChange: (at: string) => void }) {
  const { zone } = useReader().person
  const local = Temporal.Instant.from(at).toZonedDateTimeISO(zone).toPlainDateTime()
  const choose = (next: Temporal.PlainDateTime) => onChange(next.toZonedDateTime(zone).toInstant().toString())
  return (
    <>
      <DateField
        label="Day"
        value={local.toPlainDate().toString()}
        onChange={(day) => choose(Temporal.PlainDate.from(day).toPlainDateTime(local.toPlainTime()))}
      />
      <ClockField
        label="Hour"
        value={local.toPlainTime().toString().slice(0, 5)}
        onChange={(clock) => choose(local.toPlainDate().toPlainDateTime(Temporal.PlainTime.from(clock)))}
      />
    </>
  )
}
