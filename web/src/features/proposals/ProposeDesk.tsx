import { useState } from 'react'
import { fieldProblem } from '../../api/problem'
import { type Gap, gapTime } from '../../model/availabilityQueries'
import type { Layer } from '../../model/bricks'
import { bookableOf, placeText } from '../../model/makeIn'
import { Alert } from '../../ui/Alert'
import { BookingNote } from '../../ui/BookingNote'
import { Button } from '../../ui/Button'
import { Desk } from '../../ui/Desk'
import { FormProblem } from '../../ui/FormProblem'
import { GoesTo } from '../../ui/GoesTo'
import { TextArea } from '../../ui/TextArea'
import { TextField } from '../../ui/TextField'
import { useAct } from '../../undo/useAct'
import { propose } from './proposalQueries'
import { timeText } from './SuitsForm'

interface ProposeDeskProps {
  kept: readonly Gap[]
  onKeep: (kept: readonly Gap[]) => void
  /** The calendars that the event can go to. */
  layers: readonly Layer[]
  /** The places that were looked for with the people. */
  places: readonly Layer[]
  calendarId: string
  reader: string
  nameOf: (id: string) => string
  onAsked: (proposalId: string) => void
  onBack: () => void
  onClose: () => void
}

/** Several times are put to people as one question: what it is about, and who is asked. */
export function ProposeDesk({
  kept,
  onKeep,
  layers,
  places,
  calendarId,
  reader,
  nameOf,
  onAsked,
  onBack,
  onClose,
}: ProposeDeskProps) {
  const [id] = useState(() => crypto.randomUUID())
  // A place that was looked for is booked by what goes to its calendar.
  const [goesTo, setGoesTo] = useState(bookableOf(places)?.calendarId ?? calendarId)
  const [title, setTitle] = useState('')
  const [place, setPlace] = useState(() => placeText(places))
  const [notes, setNotes] = useState('')
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set())
  // Whoever is free in one of the times is asked about all: they may make room for another.
  const people = [...new Set(kept.flatMap((gap) => gap.named))].filter((one) => one !== reader)
  const asked = people.filter((one) => !left.has(one))
  const asking = useAct({
    run: (_, set) =>
      propose(
        id,
        {
          calendarId: goesTo,
          title,
          place,
          notes,
          times: kept.map((gap) => ({ start: gap.suggested, end: gap.suggestedEnd })),
          personIds: asked,
        },
        set,
      ),
    say: () => `Asked ${asked.length === 1 ? nameOf(asked[0] ?? '') : `${asked.length} people`}.`,
    freshen: ['proposals'],
    onDone: () => onAsked(id),
    saysItself: true,
  })
  const error = asking.error
  return (
    <Desk title="Which suits?" onClose={onClose}>
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault()
          asking.mutate()
        }}
      >
        <GoesTo layers={layers} calendarId={goesTo} onChange={setGoesTo} />
        <TextField
          label="What it is about"
          value={title}
          onChange={setTitle}
          placeholder="Glaze review"
          autoComplete="off"
          problem={fieldProblem(error, 'title')}
        />
        <section aria-label="Times proposed" className="grid gap-1">
          <h3 className="text-[12px] text-cement-700">Times</h3>
          <ul className="grid gap-1">
            {kept.map((gap) => (
              <li
                key={gapTime(gap)}
                className="flex items-center justify-between border border-gap-edge bg-gap-tint px-2 py-1"
              >
                {timeText({ start: gap.suggested, end: gap.suggestedEnd })}
                <button
                  type="button"
                  aria-label={`Leave out ${timeText({ start: gap.suggested, end: gap.suggestedEnd })}`}
                  onClick={() => onKeep(kept.filter((one) => one !== gap))}
                  className="rounded-control px-1.5 hover:bg-gap/40"
                >
                  ×
                </button>
              </li>
            ))}
          </ul>
          {fieldProblem(error, 'times') && <Alert>{fieldProblem(error, 'times')}</Alert>}
        </section>
        <fieldset className="grid gap-1">
          <legend className="mb-1 text-[12px] text-cement-700">Asked in their inbox and by mail</legend>
          {people.map((one) => (
            <label key={one} className="flex items-center gap-2">
              <input
                type="checkbox"
                checked={!left.has(one)}
                onChange={() => {
                  const next = new Set(left)
                  if (!next.delete(one)) next.add(one)
                  setLeft(next)
                }}
                className="size-4 accent-ink"
              />
              <span className="written">{nameOf(one)}</span>
            </label>
          ))}
          {fieldProblem(error, 'personIds') && <Alert>{fieldProblem(error, 'personIds')}</Alert>}
        </fieldset>
        <TextField
          label="Place"
          value={place}
          onChange={setPlace}
          autoComplete="off"
          problem={fieldProblem(error, 'place')}
        />
        <BookingNote
          place={place}
          calendarId={goesTo}
          layers={[...layers, ...places.filter((one) => !layers.includes(one))]}
          onBook={setGoesTo}
        />
        <TextArea
          label="Notes"
          rows={2}
          value={notes}
          onChange={setNotes}
          problem={fieldProblem(error, 'notes')}
        />
        <FormProblem error={error} fields={['title', 'place', 'notes', 'times', 'personIds']} />
        <div className="flex items-center gap-3">
          <Button look="main" type="submit" disabled={asking.isPending}>
            Ask which suits
          </Button>
          <Button look="link" onClick={onBack}>
            Back to the gaps
          </Button>
        </div>
      </form>
    </Desk>
  )
}
