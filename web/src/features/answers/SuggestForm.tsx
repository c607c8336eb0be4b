import { type ReactNode, useState } from 'react'
import { dateOf, minutesBetween, plusMinutes } from '../../model/times'
import { Button } from '../../ui/Button'

/** A day and an hour that are being chosen. */
interface DayAndHour {
  day: string
  clock: string
  onDay: (day: string) => void
  onClock: (clock: string) => void
}

interface SuggestFormProps {
  /** When it is now. */
  time: { start: string; end: string }
  isBusy: boolean
  /** The fields for it: as the reader writes dates, or the browser's own where nobody is signed in. */
  fields: (chosen: DayAndHour) => ReactNode
  onSuggest: (start: string, end: string) => void
}

/** Another time, as long as before, said with a no: whose event it is decides. */
export function SuggestForm({ time, isBusy, fields, onSuggest }: SuggestFormProps) {
  const [open, setOpen] = useState(false)
  const [day, onDay] = useState(dateOf(time.start))
  const [clock, onClock] = useState(time.start.slice(11, 16))
  const start = `${day}T${clock}:00`
  if (!open)
    return (
      <button type="button" className="justify-self-start underline" onClick={() => setOpen(true)}>
        Suggest another time
      </button>
    )
  return (
    <fieldset className="grid gap-2 border-l-4 border-cement-300 pl-2">
      <legend className="sr-only">Another time</legend>
      {fields({ day, clock, onDay, onClock })}
      <div>
        <Button
          disabled={isBusy || start === time.start || day === '' || clock === ''}
          onClick={() => {
            setOpen(false)
            onSuggest(start, plusMinutes(start, minutesBetween(time.start, time.end)))
          }}
        >
          Suggest that time
        </Button>
      </div>
    </fieldset>
  )
}
