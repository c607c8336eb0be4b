import { type FormEvent, useRef } from 'react'
import { fieldProblem } from '../../api/problem'
import { type Layer, titleOf } from '../../model/bricks'
import type { EventDraft } from '../../model/eventDraft'
import { useReader } from '../../reader/person'
import { Alert } from '../../ui/Alert'
import { Button } from '../../ui/Button'
import { Desk } from '../../ui/Desk'
import { AgreementPart } from '../absences'
import { AnswersPart } from '../answers'
import { EventFields, useFocus } from './EventFields'
import { EventGiving } from './EventGiving'
import { EventHistory } from './EventHistory'
import type { ReachAsked } from './eventQueries'
import { ReachQuestion } from './ReachQuestion'
import { TwoVersions } from './TwoVersions'
import { useEventPeople } from './useEventPeople'
import { useEventSaving } from './useEventSaving'

interface EventDeskProps {
  form: EventDraft
  /** The layers an event can be put in. */
  layers: readonly Layer[]
  /** Somebody else's version, where a change from the wall met one. */
  met: EventDraft | null
  /** Asked at once, where the brick was carried on the wall. */
  asked: ReachAsked
  onForm: (form: EventDraft) => void
  onMet: (theirs: EventDraft | null) => void
  onClose: () => void
  onLeave: () => void
}

/** An event being written or changed. The wall draws it while it is typed. */
export function EventDesk({ form, layers, met, asked, onForm, onMet, onClose, onLeave }: EventDeskProps) {
  const people = useEventPeople(form, layers)
  const saving = useEventSaving({ form, people, asked, onMet, onClose })
  const { calendar } = people
  const fields = useRef<HTMLFormElement>(null)
  useFocus(form, fields)
  const isNew = form.before === null
  const title = titleOf(form.title, calendar?.purpose)
  const submit = (event: FormEvent) => {
    event.preventDefault()
    saving.submit()
  }

  return (
    <Desk title={isNew ? form.title || 'New event' : title} onClose={onLeave}>
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
            const mine = { ...form, version: met.version }
            onForm(mine)
            saving.saveOrAsk(mine)
          }}
        />
      )}
      {saving.asking && form.only && !met && (
        <ReachQuestion
          form={form}
          title={title}
          isDeletion={saving.asking === 'delete'}
          onReach={saving.reach}
          onCancel={saving.cancel}
        />
      )}
      {form.before !== null && (
        <AgreementPart
          eventId={form.eventId}
          version={form.version}
          agreed={calendar?.agreed === true}
          who={people.members?.find((one) => form.attendees.includes(one.personId))?.name ?? 'somebody'}
          onDone={onClose}
        />
      )}
      <form ref={fields} onSubmit={submit} className="grid gap-3">
        <EventFields
          form={form}
          layers={layers}
          people={people}
          error={saving.error}
          onChange={(part) => {
            saving.forget()
            onForm({ ...form, ...part })
          }}
        />
        <Problems error={saving.error} />
        {calendar?.agreed && !calendar.may.coordinate && (
          <p className="border-l-4 border-cement-500 pl-3 text-[13px]">
            Those who coordinate “{calendar.name}” agree to it. Until then it counts as perhaps; you are told
            in your inbox.
          </p>
        )}
        <Button type="submit" look="main" wide disabled={saving.busy || !calendar}>
          {isNew
            ? calendar
              ? `Add to ${calendar.name}`
              : 'Add'
            : people.from
              ? `Save and move to ${calendar?.name}`
              : 'Save'}
        </Button>
        {!isNew && form.mayGiveAway && (
          <Button look="danger" disabled={saving.busy} onClick={saving.eraseOrAsk}>
            Delete
          </Button>
        )}
      </form>
      {!isNew && form.attendees.length > 0 && calendar?.purpose !== 'away' && (
        <Answers form={form} onForm={onForm} onTake={saving.saveOrAsk} />
      )}
      {!isNew && calendar && form.mayGiveAway && (
        <EventGiving
          form={form}
          layer={calendar}
          people={people.members ?? []}
          guests={people.guests}
          onGiven={onClose}
        />
      )}
      {!isNew && <EventHistory calendarId={form.calendarId} eventId={form.eventId} only={form.only} />}
    </Desk>
  )
}

/** What is wrong with fields that have no place of their own for it. */
function Problems({ error }: { error: unknown }) {
  return ['time', 'time.start', 'time.end', 'time.last', 'attendees', 'repeats'].map((field) => {
    const problem = fieldProblem(error, field)
    return problem && <Alert key={field}>{problem}</Alert>
  })
}

/** What was answered; another time that was suggested is taken at once. */
function Answers({
  form,
  onForm,
  onTake,
}: Pick<EventDeskProps, 'form' | 'onForm'> & { onTake: (form: EventDraft) => void }) {
  const { zone } = useReader().person
  const { version } = form
  return (
    <AnswersPart
      eventId={form.eventId}
      only={form.only}
      time={form.time.form === 'clock' ? form.time : undefined}
      asking={
        form.mayGiveAway && form.before
          ? {
              version,
              onAsked: () => onForm({ ...form, version: version + 1 }),
              onTake: (start, end) => {
                const taken = { ...form, time: { form: 'clock', start, end, zone } as const }
                onForm(taken)
                onTake(taken)
              },
            }
          : undefined
      }
    />
  )
}
