import { useQuery, useQueryClient } from '@tanstack/react-query'
import { type FormEvent, useState } from 'react'
import { fieldProblem } from '../../api/problem'
import type { Layer } from '../../model/bricks'
import { deleteCalendar, lossQuery } from '../../model/calendarQueries'
import { Button } from '../../ui/Button'
import { TextField } from '../../ui/TextField'
import { newSet, useActs } from '../../undo/acts'

/** Deletes a calendar for everybody: says what goes from whom, and takes its name as the answer. */
export function DeleteCalendar({ layer, onDeleted }: { layer: Layer; onDeleted: () => void }) {
  const queries = useQueryClient()
  const acts = useActs()
  const [asked, setAsked] = useState(false)
  const [name, setName] = useState('')
  const [error, setError] = useState<unknown>(null)
  const loss = useQuery({ ...lossQuery(layer.calendarId), enabled: asked })
  const erase = async (event: FormEvent) => {
    event.preventDefault()
    const set = newSet()
    try {
      await deleteCalendar(layer.calendarId, layer.version, name, set)
      acts.done(`“${layer.calendar.name}” is in the bin for 30 days.`, set)
      onDeleted()
      await queries.invalidateQueries()
    } catch (bad) {
      setError(bad)
      acts.failed(bad)
    }
  }
  if (!asked)
    return (
      <Button look="danger" onClick={() => setAsked(true)}>
        Delete this calendar for everybody
      </Button>
    )
  return (
    <form onSubmit={erase} className="grid gap-3 border-2 border-clash p-3" noValidate>
      <h3 className="text-base">Delete for everybody?</h3>
      {loss.data && (
        <p className="written">
          “{layer.calendar.name}” with {counted(loss.data.events, 'event', 'events')} leaves the walls of{' '}
          {counted(loss.data.people, 'person', 'people')}, and its links lead nowhere. It waits in the bin for
          30 days and can be brought back from there whole, with its access.
        </p>
      )}
      <TextField
        label={`Type its name: ${layer.calendar.name}`}
        value={name}
        onChange={setName}
        problem={fieldProblem(error, 'name')}
        autoComplete="off"
        autoFocus
      />
      <div className="flex gap-2">
        <Button type="submit" look="danger" disabled={name.trim() === ''}>
          Delete for everybody
        </Button>
        <Button onClick={() => setAsked(false)}>Keep it</Button>
      </div>
    </form>
  )
}

const counted = (count: number, one: string, many: string) => `${count} ${count === 1 ? one : many}`
