import { useQuery } from '@tanstack/react-query'
import { type FormEvent, useEffect, useRef, useState } from 'react'
import { fieldProblem } from '../../api/problem'
import { type Layer, titleOf } from '../../model/bricks'
import { type EventForm, showAsChoices, timeProblem, withStart } from '../../model/eventForm'
import { groupQueries } from '../../model/groupQueries'
import { keepLastCalendar } from '../../model/makeIn'
import { daysOf } from '../../model/times'
import { useReader } from '../../reader/person'
import { isoDay } from '../../reader/preferences'
import { BookingNote } from '../../ui/BookingNote'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { Desk } from '../../ui/Desk'
import { GoesTo } from '../../ui/GoesTo'
import { TextArea } from '../../ui/TextArea'
import { TextField } from '../../ui/TextField'
import { newSet } from '../../undo/acts'
import { AgreementPart, backQuery } from '../absences'
import { AnswersPart, answersQuery } from '../answers'
import { CoverNote, TakenNote } from '../availability'
import { EventGiving } from './EventGiving'
import { EventHistory } from './EventHistory'
import type { Reach } from './eventQueries'
import { ReachQuestion } from './ReachQuestion'
import { RepeatsField } from './RepeatsField'
import { TwoVersions } from './TwoVersions'
import { useEventActs, type Written } from './useEventActs'
import { WhenFields } from './WhenFields'
import { WhoField } from './WhoField'

/** What is asked about a series before it is changed. */
export type ReachAsked = 'change' | 'delete' | null

interface EventDeskProps {
  form: EventForm
  /** The layers an event can be put in. */
  layers: readonly Layer[]
  /** Somebody else's version, where a change from the wall met one. */
  met: EventForm | null
  /** Asked at once, where the brick was carried on the wall. */
  asked: ReachAsked
  onForm: (form: EventForm) => void
  onMet: (theirs: EventForm | null) => void
  onClose: () => void
  onLeave: () => void
}

const reminders = [
  { value: '', label: 'None' },
  { value: '0', label: 'When it begins' },
  { value: '10', label: '10 minutes before' },
  { value: '30', label: 'Half an hour before' },
  { value: '60', label: 'An hour before' },
  { value: '1440', label: 'A day before' },
  { value: '10080', label: 'A week before' },
]

/** An event being written or changed. The wall draws it while it is typed. */
export function EventDesk({ form, layers, met, asked, onForm, onMet, onClose, onLeave }: EventDeskProps) {
  const { person } = useReader()
  const { write, remove } = useEventActs()
  const [error, setError] = useState<unknown>(null)
  const [busy, setBusy] = useState(false)
  const [asking, setAsking] = useState<ReachAsked>(asked)
  const isNew = form.version === null
  const fields = useRef<HTMLFormElement>(null)
  useEffect(() => {
    if (!form.focus) return
    const part = fields.current?.querySelector(`[data-field=${form.focus}]`)
    part?.scrollIntoView({ block: 'center' })
    part?.querySelector<HTMLElement>('input, select, textarea, button')?.focus()
  }, [form.focus])
  const calendar = layers.find((layer) => layer.calendarId === form.calendarId)
  /** The calendar it leaves, where it is put into another one. */
  const from = layers.find(
    (layer) => layer.calendarId === form.calendarBefore && form.calendarBefore !== form.calendarId,
  )
  const members = useQuery({
    ...groupQueries.members(calendar?.groupId ?? ''),
    enabled: typeof calendar?.groupId === 'string',
    retry: false,
  })
  const guests = useQuery({
    ...groupQueries.guests(calendar?.groupId ?? ''),
    enabled: !isNew && form.mayGiveAway && typeof calendar?.groupId === 'string',
    retry: false,
  })
  // Whoever was given this one event knows by name only those who are named on it.
  const named = useQuery({
    ...answersQuery(form.eventId, form.only),
    enabled: !isNew && calendar !== undefined && calendar.groupId === null,
  })
  const away = form.attendees.length > 0 ? form.attendees : [person.id]
  const back = useQuery({
    ...backQuery(calendar?.groupId ?? null, daysOf(form.time).last, away),
    enabled: calendar?.purpose === 'away' && calendar.groupId !== null,
  })
  const set = (part: Partial<EventForm>) => {
    // What was wrong may be right by now; saving says what is not.
    setError(null)
    onForm({ ...form, ...part })
  }

  const settle = (written: Written) => {
    setBusy(false)
    if (written.kind === 'done') onClose()
    if (written.kind === 'stale') onMet(written.theirs)
    if (written.kind === 'refused') setError(written.error)
  }
  const save = async (wish: EventForm, reach: Reach) => {
    setBusy(true)
    setError(null)
    setAsking(null)
    const title = titleOf(wish.title, calendar?.purpose)
    const sentence = isNew
      ? `Added “${title}” to ${calendar?.name ?? 'the calendar'}.`
      : `${from ? 'Moved' : 'Changed'} “${title}”${from ? ` from ${from.name} to ${calendar?.name}` : ''}${wish.only ? reachWords[reach] : ''}.`
    const written = await write(wish, sentence, reach)
    if (written.kind === 'done' && calendar && (isNew || from)) keepLastCalendar(calendar)
    settle(written)
  }
  const erase = async (reach: Reach) => {
    setBusy(true)
    setAsking(null)
    settle(await remove(form, reach, newSet(), titleOf(form.title, calendar?.purpose)))
  }
  const submit = (event: FormEvent) => {
    event.preventDefault()
    if (timeProblem(form.time) || !calendar) return
    if (form.only && !isNew) setAsking('change')
    else void save(form, 'whole')
  }
  const savesText = from ? `Save and move to ${calendar?.name}` : 'Save'
  const kinds = calendar?.kinds ?? []

  return (
    <Desk
      title={isNew ? form.title || 'New event' : titleOf(form.title, calendar?.purpose)}
      onClose={onLeave}
    >
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
            if (form.only) setAsking('change')
            else void save(mine, 'whole')
          }}
        />
      )}
      {asking && form.only && !met && (
        <ReachQuestion
          form={form}
          title={titleOf(form.title, calendar?.purpose)}
          isDeletion={asking === 'delete'}
          onReach={(reach) => void (asking === 'delete' ? erase(reach) : save(form, reach))}
          onCancel={() => (asked ? onClose() : setAsking(null))}
        />
      )}
      {form.version !== null && (
        <AgreementPart
          eventId={form.eventId}
          version={form.version}
          agreed={calendar?.agreed === true}
          who={(members.data ?? []).find((one) => form.attendees.includes(one.personId))?.name ?? 'somebody'}
          onDone={onClose}
        />
      )}
      <form ref={fields} onSubmit={submit} className="grid gap-3">
        <GoesTo
          layers={form.mayGiveAway ? layers : layers.filter((layer) => layer.calendarId === form.calendarId)}
          calendarId={form.calendarId}
          isPrivate={form.private}
          onChange={(calendarId) =>
            set({
              calendarId,
              // An absence is one's own unless somebody is named.
              ...(form.attendees.length === 0 && isAway(layers, calendarId) && { attendees: [person.id] }),
            })
          }
        />
        <TextField
          label="Title"
          value={form.title}
          onChange={(title) => set({ title })}
          problem={fieldProblem(error, 'title')}
          autoFocus={isNew}
        />
        <div data-field="when">
          <WhenFields
            time={form.time}
            zone={person.zone}
            halves={
              calendar?.purpose === 'away'
                ? { begins: person.preferences.dayBegins, ends: person.preferences.dayEnds }
                : null
            }
            back={back.data?.back ?? null}
            mayRepeat={form.only === null && form.rule === null && form.repeats === null}
            onChange={(time, rule) => set(rule === undefined ? { time } : { time, rule })}
          />
        </div>
        <TakenNote
          people={form.attendees}
          places={calendar?.purpose === 'place' ? [calendar] : []}
          time={form.time}
          groupId={calendar?.groupId ?? null}
          eventId={isNew ? null : form.eventId}
          onStart={(start) => set({ time: withStart(form.time, start) })}
        />
        {calendar?.purpose === 'away' && calendar.groupId && (
          <CoverNote groupId={calendar.groupId} time={form.time} people={away} />
        )}
        <div data-field="repeats">
          <RepeatsField
            form={form}
            firstDay={isoDay(person.preferences.firstDay)}
            onChange={(rule) => set({ rule })}
          />
        </div>
        <div data-field="who">
          <WhoField
            group={
              // An absence is one person's, rarely several people's and never a guest's.
              members.data && calendar?.groupId && calendar.purpose !== 'away'
                ? { id: calendar.groupId, name: calendar.groupName ?? 'the group' }
                : null
            }
            members={members.data ?? named.data?.people ?? []}
            attendees={form.attendees}
            onChange={(attendees) => set({ attendees })}
          />
        </div>
        {(form.attendees.length > 1 || form.hidesAttendees) && (
          <label className="flex items-start gap-2">
            <input
              type="checkbox"
              checked={form.hidesAttendees}
              onChange={(event) => set({ hidesAttendees: event.target.checked })}
              className="mt-0.5 size-4 accent-ink"
            />
            <span>
              Keep to yourself who is named
              <span className="block text-[12px] text-cement-700">
                Only those who may change it see the list; everybody else finds at most themselves.
              </span>
            </span>
          </label>
        )}
        <div data-field="where">
          <TextField
            label="Where"
            value={form.place}
            onChange={(place) => set({ place })}
            problem={fieldProblem(error, 'place')}
          />
        </div>
        <BookingNote
          place={form.place}
          calendarId={form.calendarId}
          layers={form.mayGiveAway ? layers : []}
          onBook={(calendarId) => set({ calendarId })}
        />
        {kinds.length > 0 && (
          <div data-field="kind">
            <Choice
              label="Kind"
              value={form.kind}
              onChange={(kind) => set({ kind })}
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
            value={form.notes}
            onChange={(notes) => set({ notes })}
            problem={fieldProblem(error, 'notes')}
          />
        </div>
        <div data-field="counts" className="grid grid-cols-2 gap-2">
          <Choice
            label="Counts as"
            value={form.showAs}
            onChange={(showAs) => set({ showAs })}
            options={showAsChoices}
          />
          <Choice
            label="Reminder"
            value={form.reminder === null ? '' : String(form.reminder)}
            onChange={(minutes) => set({ reminder: minutes === '' ? null : Number(minutes) })}
            options={
              form.reminder === null || reminders.some((one) => one.value === String(form.reminder))
                ? reminders
                : [...reminders, { value: String(form.reminder), label: `${form.reminder} minutes before` }]
            }
          />
        </div>
        <label className="flex items-start gap-2">
          <input
            type="checkbox"
            checked={form.private}
            onChange={(event) => set({ private: event.target.checked })}
            className="mt-0.5 size-4 accent-ink"
          />
          <span>
            Times only for others
            <span className="block text-[12px] text-cement-700">
              Those named here, and who may change it, see what it is.
            </span>
          </span>
        </label>
        {['time', 'time.start', 'time.end', 'time.last', 'attendees', 'repeats'].map((field) => {
          const problem = fieldProblem(error, field)
          return (
            problem && (
              <p key={field} role="alert" className="text-clash">
                {problem}
              </p>
            )
          )
        })}
        {calendar?.agreed && !calendar.may.coordinate && (
          <p className="border-l-4 border-cement-500 pl-3 text-[13px]">
            Those who coordinate “{calendar.name}” agree to it. Until then it counts as perhaps; you are told
            in your inbox.
          </p>
        )}
        <Button type="submit" look="main" wide disabled={busy || !calendar}>
          {isNew ? (calendar ? `Add to ${calendar.name}` : 'Add') : savesText}
        </Button>
        {!isNew && form.mayGiveAway && (
          <Button
            look="danger"
            disabled={busy}
            onClick={() => (form.only ? setAsking('delete') : void erase('whole'))}
          >
            Delete
          </Button>
        )}
      </form>
      {!isNew && form.attendees.length > 0 && calendar?.purpose !== 'away' && (
        <AnswersPart
          eventId={form.eventId}
          only={form.only}
          time={form.time.form === 'clock' ? form.time : undefined}
          asking={
            form.mayGiveAway && form.version !== null
              ? {
                  version: form.version,
                  onAsked: () => onForm({ ...form, version: (form.version ?? 0) + 1 }),
                  onTake: (start, end) => {
                    const taken = { ...form, time: { form: 'clock', start, end, zone: person.zone } as const }
                    onForm(taken)
                    if (form.only) setAsking('change')
                    else void save(taken, 'whole')
                  },
                }
              : undefined
          }
        />
      )}
      {!isNew && calendar && form.mayGiveAway && (
        <EventGiving
          form={form}
          layer={calendar}
          people={members.data ?? []}
          guests={guests.data ?? []}
          onGiven={onClose}
        />
      )}
      {!isNew && <EventHistory calendarId={form.calendarId} eventId={form.eventId} only={form.only} />}
    </Desk>
  )
}

const isAway = (layers: readonly Layer[], calendarId: string): boolean =>
  layers.find((layer) => layer.calendarId === calendarId)?.purpose === 'away'

const reachWords: Record<Reach, string> = {
  onlyThis: ', this date only',
  andLater: ', from this date on',
  whole: ', the whole series',
}
