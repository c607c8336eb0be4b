import { useQuery } from '@tanstack/react-query'
import type { ReactNode } from 'react'
import { Button } from '../../ui/Button'
import { LinkedText } from '../../ui/LinkedText'
import { MarkBlock } from '../../ui/MarkSign'
import { AnswersPart } from '../answers/AnswersPart'
import { answersQuery } from '../answers/answerQueries'
import { backQuery } from '../availability/availabilityQueries'
import { type EventBrick, type Layer, titleOf } from '../wall/bricks'
import { Desk } from '../wall/Desk'
import { daysOf } from '../wall/times'
import { EventHistory } from './EventHistory'
import { showAsChoices } from './eventForm'
import { whenAwayText, whenText } from './whenText'

interface EventPageProps {
  brick: Omit<EventBrick, 'form'>
  layer: Layer
  /** The names of people by their ids. */
  names: ReadonlyMap<string, string>
  /** Lays it on the desk to be changed; undefined where the reader may not. */
  onEdit: (() => void) | undefined
  onClose: () => void
  /** What is said before it. */
  children?: ReactNode
}

/** An event that is read, by somebody who may not change it. */
export function EventPage({ brick, layer, names, onEdit, onClose, children }: EventPageProps) {
  // To an absence nobody says whether they come.
  const isAbsence = layer.purpose === 'away'
  const who = isAbsence ? brick.attendees.map((one) => names.get(one) ?? 'somebody else').join(', ') : ''
  const asked = useQuery({
    ...answersQuery(brick.eventId, brick.only),
    enabled: brick.attendees.length > 0 && !isAbsence,
  })
  const back = useQuery({
    ...backQuery(layer.groupId, daysOf(brick.time).last, brick.attendees),
    enabled: isAbsence && layer.groupId !== null && brick.time.form === 'days' && brick.attendees.length > 0,
  })
  const rows: [string, string | null][] = [
    ['Who', who],
    ['When', isAbsence ? whenAwayText(brick.time, back.data?.back) : whenText(brick.time)],
    ['Repeats', brick.repeats],
    [
      'Organizer',
      brick.organizer ? (names.get(brick.organizer) ?? asked.data?.organizer ?? 'somebody else') : null,
    ],
    ['Kind', brick.kind],
    [`In ${brick.zone?.replaceAll('_', ' ')}`, brick.agreed && whenText(brick.agreed)],
    ['Where', brick.place],
    ['Counts as', showAsChoices.find((choice) => choice.value === brick.showAs)?.label ?? null],
    ['Notes', brick.notes],
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
      <dl className="grid gap-3">
        {brick.cancelled && <p className="font-bold text-clash">Called off</p>}
        {rows.map(
          ([name, value]) =>
            value && (
              <div key={name}>
                <dt className="text-[12px] text-cement-700">{name}</dt>
                <dd className="written whitespace-pre-line">
                  {name === 'Notes' ? <LinkedText elsewhere text={value} /> : value}
                </dd>
              </div>
            ),
        )}
      </dl>
      {onEdit ? (
        <div className="mt-5">
          <Button look="main" onClick={onEdit}>
            Change it
          </Button>
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
        />
      )}
      <EventHistory calendarId={brick.calendarId} eventId={brick.eventId} only={brick.only} />
    </Desk>
  )
}
