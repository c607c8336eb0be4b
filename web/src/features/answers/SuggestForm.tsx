import { useState } from 'react'
import { ClockField } from '../../app/ClockField'
import { DateField } from '../../app/DateField'
import { Button } from '../../ui/Button'
import { dateOf, minutesBetween, plusMinutes } from '../wall/times'

interface SuggestFormProps {
  /** When it is now. */
  time: { start: string; end: string }
  isBusy: boolean
  onSuggest: (start: string, end: string) => void
}

/** Another time, as long as before, said with a no: whose event it is decides. */
export function SuggestForm({ time, isBusy, onSuggest }: SuggestFormProps) {
  const [open, setOpen] = useState(false)
  const [day, setDay] = useState(dateOf(time.start))
  const [clock, setClock] = useState(time.start.slice(11, 16))
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
      <DateField label="Another day" value={day} onChange={setDay} />
      <ClockField label="Another time" value={clock} onChange={setClock} />
      <div>
        <Button
          disabled={isBusy || start === time.start}
          onClick={() => onSuggest(start, plusMinutes(start, minutesBetween(time.start, time.end)))}
        >
          Suggest that time
        </Button>
      </div>
    </fieldset>
  )
}
