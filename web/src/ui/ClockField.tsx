import { clockText } from '../reader/dates'
import { clockTyped } from '../reader/typed'
import { WrittenField } from './WrittenField'

interface ClockFieldProps {
  label: string
  /** As "14:30". */
  value: string
  onChange: (clock: string) => void
  problem?: string
}

const quarter = 15
const day = 24 * 60

/** A time of day, on the reader's clock of 12 or 24 hours. */
export function ClockField({ label, value, onChange, problem }: ClockFieldProps) {
  return (
    <WrittenField
      label={label}
      written={clockText(`2000-01-01T${value}`)}
      onWritten={(text) => {
        const clock = clockTyped(text)
        if (clock) onChange(clock)
        return clock !== undefined
      }}
      onStep={(by) => onChange(stepped(value, by))}
      expected="Type a time, as 14:30 or 2:30 pm."
      problem={problem}
    />
  )
}

/** The next quarter of an hour, or the one before; round the clock. */
function stepped(clock: string, by: number): string {
  const at = Number(clock.slice(0, 2)) * 60 + Number(clock.slice(3, 5))
  const next = (by > 0 ? Math.floor(at / quarter) + 1 : Math.ceil(at / quarter) - 1) * quarter
  const minute = (next + day) % day
  return `${String(Math.floor(minute / 60)).padStart(2, '0')}:${String(minute % 60).padStart(2, '0')}`
}
