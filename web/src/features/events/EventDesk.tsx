import { type FormEvent, useState } from 'react'
import { fieldProblem } from '../../api/problem'
import { useReader } from '../../app/person'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { TextArea } from '../../ui/TextArea'
import { TextField } from '../../ui/TextField'
import { type Layer, titleOf } from '../wall/bricks'
import { Desk } from '../wall/Desk'
import { type EventForm, timeProblem } from './eventForm'
import { GoesTo } from './GoesTo'
import { TwoVersions } from './TwoVersions'
import { useEventActs, type Written } from './useEventActs'
import { WhenFields } from './WhenFields'

interface EventDeskProps {
  form: EventForm
  /** The layers an event can be put in. */
  layers: readonly Layer[]
  /** Somebody else's version, where a change from the wall met one. */
  met: EventForm | null
  onForm: (form: EventForm) => void
  onMet: (theirs: EventForm | null) => void
  onClose: () => void
  onLeave: () => void
}

export const showAsChoices = [
  { value: 'busy', label: 'Busy: it takes the time' },
  { value: 'tentative', label: 'Tentative: not settled' },
  { value: 'free', label: 'Free: it takes no time' },
] as const

/** An event being written or changed. The wall draws it while it is typed. */
export function EventDesk({ form, layers, met, onForm, onMet, onClose, onLeave }: EventDeskProps) {
  const { person } = useReader()
  const { write, remove } = useEventActs()
  const [error, setError] = useState<unknown>(null)
  const [busy, setBusy] = useState(false)
  const isNew = form.version === null
  const calendar = layers.find((layer) => layer.calendarId === form.calendarId)
  const set = (part: Partial<EventForm>) => onForm({ ...form, ...part })

  const settle = (written: Written) => {
    setBusy(false)
    if (written.kind === 'done') onClose()
    if (written.kind === 'stale') onMet(written.theirs)
    if (written.kind === 'refused') setError(written.error)
  }
  const save = async (wish: EventForm) => {
    setBusy(true)
    setError(null)
    const title = titleOf(wish.title)
    settle(
      await write(
        wish,
        isNew ? `Added “${title}” to ${calendar?.name ?? 'the calendar'}.` : `Changed “${title}”.`,
      ),
    )
  }
  const erase = async (only: string | null) => {
    setBusy(true)
    settle(await remove(form, only))
  }
  const submit = (event: FormEvent) => {
    event.preventDefault()
    if (!timeProblem(form.time)) void save(form)
  }

  return (
    <Desk title={isNew ? form.title || 'New event' : titleOf(form.title)} onClose={onLeave}>
      {met && (
        <TwoVersions
          mine={form}
          theirs={met}
          onTheirs={() => {
            onForm(met)
            onMet(null)
          }}
          onMine={() => {
            onMet(null)
            void save({ ...form, version: met.version })
          }}
        />
      )}
      <form onSubmit={submit} className="grid gap-3">
        <GoesTo layers={layers} calendarId={form.calendarId} onChange={(calendarId) => set({ calendarId })} />
        <TextField
          label="Title"
          value={form.title}
          onChange={(title) => set({ title })}
          problem={fieldProblem(error, 'title')}
          autoFocus={isNew}
        />
        <WhenFields time={form.time} zone={person.zone} onChange={(time) => set({ time })} />
        {form.repeats && (
          <p className="border-l-4 border-cement-300 pl-2 text-cement-700">
            Repeats {form.repeats}. What you change here is for this date only.
          </p>
        )}
        <TextField
          label="Where"
          value={form.place}
          onChange={(place) => set({ place })}
          problem={fieldProblem(error, 'place')}
        />
        <Choice
          label="Counts as"
          value={form.showAs}
          onChange={(showAs) => set({ showAs })}
          options={showAsChoices}
        />
        <TextArea
          label="Notes"
          value={form.notes}
          onChange={(notes) => set({ notes })}
          problem={fieldProblem(error, 'notes')}
        />
        {fieldProblem(error, 'time') && (
          <p role="alert" className="text-clash">
            {fieldProblem(error, 'time')}
          </p>
        )}
        <Button type="submit" look="main" wide disabled={busy}>
          {isNew ? `Add to ${calendar?.name ?? '…'}` : form.repeats ? 'Save this date' : 'Save'}
        </Button>
        {!isNew && (
          <div className="flex flex-wrap gap-2">
            {form.repeats && (
              <Button look="danger" disabled={busy} onClick={() => void erase(form.only)}>
                Leave this date out
              </Button>
            )}
            <Button look="danger" disabled={busy} onClick={() => void erase(null)}>
              {form.repeats ? 'Delete the whole series' : 'Delete'}
            </Button>
          </div>
        )}
      </form>
    </Desk>
  )
}
