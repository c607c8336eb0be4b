import { useQuery, useQueryClient } from '@tanstack/react-query'
import type { ReactNode } from 'react'
import { type EventBrick, type Layer, titleOf } from '../../model/bricks'
import { copyOf, draftOf, type EventDraft, showAsChoices } from '../../model/eventDraft'
import { daysOf } from '../../model/times'
import { whenAwayText, whenText } from '../../model/whenText'
import { useReader } from '../../reader/person'
import { Button } from '../../ui/Button'
import { Desk } from '../../ui/Desk'
import { MarkBlock } from '../../ui/MarkSign'
import { newSet, useActs } from '../../undo/acts'
import { AgreementPart, backQuery } from '../absences'
import { AnswersPart, answersQuery } from '../answers'
import { EventHistory } from './EventHistory'
import { EventLines, type EventRow } from './EventLines'
import type { ReachAsked } from './eventQueries'
import { useEventActs, type Written } from './useEventActs'

interface EventPageProps {
  brick: Omit<EventBrick, 'form'>
  layer: Layer
  /** The names of people by their ids. */
  names: ReadonlyMap<string, string>
  /** Lays it on the desk to be changed, some field first, or to be asked how much of a series is meant; undefined where the reader may not. */
  onEdit: ((form: EventDraft, theirs?: EventDraft | null, asked?: ReachAsked) => void) | undefined
  onClose: () => void
  /** What is said before it. */
  children?: ReactNode
}

/**
 * An event to be read: who, when, where, notes that can be followed, what was answered. For whoever may change it each line
 * leads to its field, and *Change* to all of them.
 */
export function EventPage({ brick, layer, names, onEdit, onClose, children }: EventPageProps) {
  const acts = useActs()
  const queries = useQueryClient()
  // To an absence nobody says whether they come.
  const isAbsence = layer.purpose === 'away'
  const asked = useQuery({
    ...answersQuery(brick.eventId, brick.only),
    enabled: brick.attendees.length > 0 && !isAbsence,
  })
  const nameOf = (id: string) =>
    names.get(id) ?? asked.data?.people.find((one) => one.personId === id)?.name ?? 'somebody else'
  // For those who only read it, who is named stands under who comes.
  const who = isAbsence || onEdit ? brick.attendees.map(nameOf).join(', ') : ''
  const back = useQuery({
    ...backQuery(layer.groupId, daysOf(brick.time).last, brick.attendees),
    enabled: isAbsence && layer.groupId !== null && brick.time.form === 'days' && brick.attendees.length > 0,
  })
  const { person } = useReader()
  const { write, remove } = useEventActs()
  const form = draftOf(brick)
  const title = titleOf(brick.title, layer.purpose)
  const settle = (written: Written) => {
    if (written.kind === 'done') onClose()
    // What was changed meanwhile is looked at beside what was wanted; a refusal is said.
    if (written.kind === 'stale') onEdit?.(form, written.theirs)
    if (written.kind === 'refused') acts.failed(written.error)
  }
  const erase = async () => {
    if (form.only) onEdit?.(form, null, 'delete')
    else settle(await remove(form, 'whole', newSet(), title))
  }
  const take = async (start: string, end: string) => {
    const taken = { ...form, time: { form: 'clock', start, end, zone: person.zone } as const }
    if (form.only) onEdit?.(taken, null, 'change')
    else settle(await write(taken, `Changed “${title}”.`, 'whole'))
  }
  const rows: EventRow[] = [
    ['When', isAbsence ? whenAwayText(brick.time, back.data?.back) : whenText(brick.time), 'when'],
    [`In ${brick.zone?.replaceAll('_', ' ')}`, brick.agreed && whenText(brick.agreed), 'when'],
    ['Repeats', brick.repeats, 'repeats'],
    ['Who', who, 'who'],
    ['Where', brick.place, 'where'],
    ['Notes', brick.notes, 'notes'],
    ['Kind', brick.kind, 'kind'],
    ['Counts as', showAsChoices.find((choice) => choice.value === brick.showAs)?.label ?? null, 'counts'],
    [
      'Organizer',
      brick.organizer ? (names.get(brick.organizer) ?? asked.data?.organizer ?? 'somebody else') : null,
      null,
    ],
  ]
  return (
    <Desk title={titleOf(brick.title, layer.purpose)} onClose={onClose}>
      <p
        data-hue={layer.hue}
        className="mb-4 flex items-stretch border border-layer-edge bg-layer-tint font-bold text-layer-text"
      >
        <MarkBlock mark={layer.mark} size={26} />
        <span className="written px-2.5 py-1.5">{layer.name}</span>
      </p>
      {children}
      {onEdit && (
        <AgreementPart
          eventId={brick.eventId}
          version={brick.version}
          agreed={layer.agreed}
          who={who === '' ? 'somebody' : who}
          onDone={onClose}
        />
      )}
      <EventLines
        rows={rows}
        isCancelled={brick.cancelled}
        onChange={onEdit && ((field) => onEdit({ ...form, focus: field }))}
      />
      {onEdit ? (
        <div className="mt-5 flex gap-2">
          <Button look="main" onClick={() => onEdit(form)}>
            Change
          </Button>
          <Button onClick={() => onEdit(copyOf(form))}>Copy</Button>
          {brick.mayGiveAway && (
            <Button look="danger" onClick={() => void erase()}>
              Delete
            </Button>
          )}
        </div>
      ) : (
        <p className="mt-5 text-[12px] text-cement-700">
          You can read this calendar. To change it, ask a coordinator for another step.
        </p>
      )}
      {brick.hidesAttendees && !brick.mayChange && (
        <p className="mt-3 text-[13px] text-cement-700">Who is named is kept to those who may change it.</p>
      )}
      {brick.attendees.length > 0 && !isAbsence && (
        <AnswersPart
          eventId={brick.eventId}
          only={brick.only}
          time={brick.time.form === 'clock' ? brick.time : undefined}
          asking={
            onEdit && brick.mayGiveAway
              ? {
                  version: brick.version,
                  onAsked: () => void queries.invalidateQueries({ queryKey: ['events'] }),
                  onTake: (start, end) => void take(start, end),
                }
              : undefined
          }
        />
      )}
      <EventHistory calendarId={brick.calendarId} eventId={brick.eventId} only={brick.only} />
    </Desk>
  )
}
