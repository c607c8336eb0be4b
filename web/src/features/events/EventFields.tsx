import { type RefObject, useEffect } from 'react'
import { fieldProblem } from '../../api/problem'
import type { Layer } from '../../model/bricks'
import { type EventDraft, showAsChoices, withStart } from '../../model/eventDraft'
import { useReader } from '../../reader/person'
import { isoDay } from '../../reader/preferences'
import { BookingNote } from '../../ui/BookingNote'
import { Check } from '../../ui/Check'
import { Choice } from '../../ui/Choice'
import { GoesTo } from '../../ui/GoesTo'
import { TextArea } from '../../ui/TextArea'
import { TextField } from '../../ui/TextField'
import { CoverNote, TakenNote } from '../availability'
import { RepeatsField } from './RepeatsField'
import type { EventPeople } from './useEventPeople'
import { WhenFields } from './WhenFields'
import { WhoField } from './WhoField'

const reminders = [
  { value: '', label: 'None' },
  { value: '0', label: 'When it begins' },
  { value: '10', label: '10 minutes before' },
  { value: '30', label: 'Half an hour before' },
  { value: '60', label: 'An hour before' },
  { value: '1440', label: 'A day before' },
  { value: '10080', label: 'A week before' },
]

interface EventFieldsProps {
  form: EventDraft
  /** The layers an event can be put in. */
  layers: readonly Layer[]
  people: EventPeople
  error: unknown
  onChange: (part: Partial<EventDraft>) => void
}

/** What an event is: where it goes, when, who, what it counts as. */
export function EventFields(props: EventFieldsProps) {
  return (
    <>
      <WhereAndWhen {...props} />
      <WhoAndWhat {...props} />
      <HowItCounts {...props} />
    </>
  )
}

/** Brings the field into sight that was pressed where the event was read. */
export function useFocus(form: EventDraft, fields: RefObject<HTMLElement | null>) {
  useEffect(() => {
    if (!form.focus) return
    const part = fields.current?.querySelector(`[data-field=${form.focus}]`)
    part?.scrollIntoView({ block: 'center' })
    part?.querySelector<HTMLElement>('input, select, textarea, button')?.focus()
  }, [form.focus, fields])
}

/** The calendar it goes to, what it is called, and when it is. */
function WhereAndWhen({ form, layers, people: { calendar, back, away }, error, onChange }: EventFieldsProps) {
  const { person } = useReader()
  const isNew = form.before === null
  return (
    <>
      <GoesTo
        layers={form.mayGiveAway ? layers : layers.filter((layer) => layer.calendarId === form.calendarId)}
        calendarId={form.calendarId}
        isPrivate={form.private}
        onChange={(calendarId) =>
          onChange({
            calendarId,
            // An absence is one's own unless somebody is named.
            ...(form.attendees.length === 0 && isAway(layers, calendarId) && { attendees: [person.id] }),
          })
        }
      />
      <TextField
        label="Title"
        value={form.title}
        onChange={(title) => onChange({ title })}
        problem={fieldProblem(error, 'title')}
        autoFocus={isNew}
      />
      <div data-field="when">
        <WhenFields
          time={form.time}
          zone={person.zone}
          halves={calendar?.purpose === 'away' ? person.halves : null}
          back={back}
          mayRepeat={form.only === null && form.rule === null && form.repeats === null}
          onChange={(time, rule) => onChange(rule === undefined ? { time } : { time, rule })}
        />
      </div>
      <TakenNote
        people={form.attendees}
        places={calendar?.purpose === 'place' ? [calendar] : []}
        time={form.time}
        groupId={calendar?.groupId ?? null}
        eventId={isNew ? null : form.eventId}
        onStart={(start) => onChange({ time: withStart(form.time, start) })}
      />
      {calendar?.purpose === 'away' && calendar.groupId && (
        <CoverNote groupId={calendar.groupId} time={form.time} people={away} />
      )}
      <div data-field="repeats">
        <RepeatsField
          form={form}
          firstDay={isoDay(person.preferences.firstDay)}
          onChange={(rule) => onChange({ rule })}
        />
      </div>
    </>
  )
}

/** Who is named, where it is, and what is to be known of it. */
function WhoAndWhat({
  form,
  layers,
  people: { calendar, members, names },
  error,
  onChange,
}: EventFieldsProps) {
  const kinds = calendar?.kinds ?? []
  return (
    <>
      <div data-field="who">
        <WhoField
          group={
            // An absence is one person's, rarely several people's and never a guest's.
            members && calendar?.groupId && calendar.purpose !== 'away'
              ? { id: calendar.groupId, name: calendar.groupName ?? 'the group' }
              : null
          }
          members={names}
          attendees={form.attendees}
          onChange={(attendees) => onChange({ attendees })}
        />
      </div>
      {(form.attendees.length > 1 || form.hidesAttendees) && (
        <Check
          label="Keep to yourself who is named"
          hint="Only those who may change it see the list; everybody else finds at most themselves."
          checked={form.hidesAttendees}
          onChange={(checked) => onChange({ hidesAttendees: checked })}
        />
      )}
      <div data-field="where">
        <TextField
          label="Where"
          value={form.place}
          onChange={(place) => onChange({ place })}
          problem={fieldProblem(error, 'place')}
        />
      </div>
      <BookingNote
        place={form.place}
        calendarId={form.calendarId}
        layers={form.mayGiveAway ? layers : []}
        onBook={(calendarId) => onChange({ calendarId })}
      />
      {kinds.length > 0 && (
        <div data-field="kind">
          <Choice
            label="Kind"
            value={form.kind ?? ''}
            onChange={(kind) => onChange({ kind })}
            options={[
              { value: '', label: 'None' },
              ...kinds.map((kind) => ({ value: kind.name, label: kind.name })),
              ...(form.kind && !kinds.some((kind) => kind.name === form.kind)
                ? [{ value: form.kind, label: form.kind }]
                : []),
            ]}
          />
        </div>
      )}
      <div data-field="notes">
        <TextArea
          label="Notes"
          value={form.notes ?? ''}
          onChange={(notes) => onChange({ notes })}
          problem={fieldProblem(error, 'notes')}
        />
      </div>
    </>
  )
}

/** How it counts, when one is reminded, and what others see of it. */
function HowItCounts({ form, onChange }: EventFieldsProps) {
  return (
    <>
      <div data-field="counts" className="grid grid-cols-2 gap-2">
        <Choice
          label="Counts as"
          value={form.showAs}
          onChange={(showAs) => onChange({ showAs })}
          options={showAsChoices}
        />
        <Choice
          label="Reminder"
          value={form.reminder === null ? '' : String(form.reminder)}
          onChange={(minutes) => onChange({ reminder: minutes === '' ? null : Number(minutes) })}
          options={
            form.reminder === null || reminders.some((one) => one.value === String(form.reminder))
              ? reminders
              : [...reminders, { value: String(form.reminder), label: `${form.reminder} minutes before` }]
          }
        />
      </div>
      <Check
        label="Times only for others"
        hint="Those named here, and who may change it, see what it is."
        checked={form.private}
        onChange={(checked) => onChange({ private: checked })}
      />
    </>
  )
}

const isAway = (layers: readonly Layer[], calendarId: string): boolean =>
  layers.find((layer) => layer.calendarId === calendarId)?.purpose === 'away'
