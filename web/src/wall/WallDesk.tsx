import { lazy, Suspense } from 'react'
import type { Schema } from '../api/client'
import type { FreeForm } from '../features/availability/FreeDesk'
import type { useGaps } from '../features/availability/useGaps'
import type { ReachAsked } from '../features/events/EventDesk'
import type { Sight } from '../features/events/useSight'
import type { useClashes } from '../frame/useClashes'
import type { Gap } from '../model/availabilityQueries'
import { type EventBrick, type Layer, type Time, titleOf } from '../model/bricks'
import type { EventForm } from '../model/eventForm'
import { placesOf } from '../model/makeIn'
import { Desk } from '../ui/Desk'
import type { DeskPlace } from './deskPlace'
import type { Search } from './wallQuery'

// Loaded when it is opened first: access, imports and settings are not needed to see a wall.
const CalendarDesk = lazy(() =>
  import('../features/calendars/CalendarDesk').then((module) => ({ default: module.CalendarDesk })),
)

const loadEventWriting = () => import('../features/events/EventWriting')
const EventWriting = lazy(() => loadEventWriting().then((module) => ({ default: module.EventWriting })))
const EventReading = lazy(() =>
  import('../features/events/EventReading').then((module) => ({ default: module.EventReading })),
)
// The wall is there before; when it is, so that nobody waits for it on the first press.
if (typeof requestIdleCallback === 'function') requestIdleCallback(() => void loadEventWriting())

const NewGroupDesk = lazy(() =>
  import('../features/groups/NewGroupDesk').then((module) => ({ default: module.NewGroupDesk })),
)
const LookDesk = lazy(() =>
  import('../features/shelf/LookDesk').then((module) => ({ default: module.LookDesk })),
)
const AskDesk = lazy(() =>
  import('../features/access/AskDesk').then((module) => ({ default: module.AskDesk })),
)

const FindDesk = lazy(() => import('./FindDesk').then((module) => ({ default: module.FindDesk })))
const NewCalendarDesk = lazy(() =>
  import('../features/calendars/NewCalendarDesk').then((module) => ({ default: module.NewCalendarDesk })),
)
const GapDesk = lazy(() =>
  import('../features/availability/GapDesk').then((module) => ({ default: module.GapDesk })),
)
const FreeDesk = lazy(() =>
  import('../features/availability/FreeDesk').then((module) => ({ default: module.FreeDesk })),
)

const OpenProposals = lazy(() =>
  import('../features/proposals/OpenProposals').then((module) => ({ default: module.OpenProposals })),
)
const ProposeDesk = lazy(() =>
  import('../features/proposals/ProposeDesk').then((module) => ({ default: module.ProposeDesk })),
)
const ProposalDesk = lazy(() =>
  import('../features/proposals/ProposalDesk').then((module) => ({ default: module.ProposalDesk })),
)

const ClashDesk = lazy(() =>
  import('../features/availability/ClashDesk').then((module) => ({ default: module.ClashDesk })),
)

interface WallDeskProps {
  place: Exclude<DeskPlace, { kind: 'keys' }>
  layers: readonly Layer[]
  group: Schema['GroupsGroupBody'] | undefined
  form: EventForm | null
  met: EventForm | null
  asked: ReachAsked
  /** How the reader stands to what they write. */
  sight: Sight | null
  people: readonly { personId: string; name: string }[]
  names: ReadonlyMap<string, string>
  search: Search
  onSearch: (search: Search) => void
  /** A hit of the search: the wall goes there and it opens. */
  onHit: (brick: EventBrick) => void
  onEdit: (form: EventForm, theirs?: EventForm | null, asking?: ReachAsked) => void
  onForm: (form: EventForm) => void
  onMet: (theirs: EventForm | null) => void
  onPlace: (place: DeskPlace) => void
  onGroup: (groupId: string) => void
  gaps: ReturnType<typeof useGaps>
  onGap: (gap: Gap) => void
  /** The reader. */
  reader: string
  /** The calendar that new events go to; undefined where there is none. */
  makeIn: string | undefined
  /** A proposal became an event. */
  onSettled: (eventId: string, day: string) => void
  clashes: ReturnType<typeof useClashes>
  onTakeOff: (brick: EventBrick, personId: string) => void
  free: FreeForm
  onFree: (form: FreeForm) => void
  zone: string
  today: string
  onMake: (time: Time, people: readonly string[]) => void
  onGaps: (people: readonly string[]) => void
  onGo: (day: string) => void
  onClose: () => void
  /** Closed by hand: what was not saved can be brought back. */
  onLeave: () => void
}

/** Lays on the desk what its place names. */
export function WallDesk({
  place,
  layers,
  group,
  form,
  met,
  asked,
  sight,
  people,
  names,
  search,
  onSearch,
  onHit,
  onEdit,
  onForm,
  onMet,
  onPlace,
  onGroup,
  gaps,
  onGap,
  reader,
  makeIn,
  onSettled,
  clashes,
  onTakeOff,
  free,
  onFree,
  zone,
  today,
  onMake,
  onGaps,
  onGo,
  onClose,
  onLeave,
}: WallDeskProps) {
  switch (place.kind) {
    case 'writing': {
      if (!form || !sight) return null
      const shown = sight.kind === 'writes' ? sight.form : form
      return (
        <Suspense
          fallback={
            <Desk title={titleOf(shown.title)} onClose={onLeave}>
              {null}
            </Desk>
          }
        >
          <EventWriting
            key={`${form.eventId}/${asked}`}
            sight={sight}
            names={names}
            asked={asked}
            form={shown}
            layers={layers}
            met={met}
            onForm={onForm}
            onMet={onMet}
            onClose={onClose}
            onLeave={onLeave}
          />
        </Suspense>
      )
    }
    case 'event':
      return (
        <Suspense>
          <EventReading
            key={place.key}
            eventKey={place.key}
            layers={layers}
            names={names}
            onEdit={onEdit}
            onClose={onClose}
          />
        </Suspense>
      )
    case 'find':
      return (
        <Suspense>
          <FindDesk
            search={search}
            layers={layers}
            people={people}
            onSearch={onSearch}
            onOpen={onHit}
            onClose={onClose}
          />
        </Suspense>
      )
    case 'look': {
      const layer = layers.find((one) => one.calendarId === place.calendarId)
      return layer ? (
        <Suspense>
          <LookDesk key={layer.calendarId} layer={layer} layers={layers} onClose={onClose} />
        </Suspense>
      ) : (
        <NotThere onClose={onClose} />
      )
    }
    case 'calendar': {
      const layer = layers.find((one) => one.calendarId === place.calendarId)
      return layer ? (
        <Suspense
          fallback={
            <Desk title={layer.name} onClose={onClose}>
              {null}
            </Desk>
          }
        >
          <CalendarDesk
            key={layer.calendarId}
            layer={layer}
            part={place.part}
            onPart={(part) => onPlace({ ...place, part })}
            onClose={onClose}
          />
        </Suspense>
      ) : (
        <NotThere onClose={onClose} />
      )
    }
    case 'newCalendar':
      return group ? (
        <Suspense>
          <NewCalendarDesk
            key={group.id}
            group={group}
            layers={layers}
            onMade={(calendarId) => onPlace({ kind: 'calendar', calendarId, part: 'about' })}
            onClose={onClose}
          />
        </Suspense>
      ) : null
    case 'ask':
      return (
        <Suspense>
          <AskDesk groupId={group?.id} onClose={onClose} />
        </Suspense>
      )
    case 'gaps':
      return gaps.form ? (
        <Suspense
          fallback={
            <Desk title="Gaps" onClose={onClose}>
              {null}
            </Desk>
          }
        >
          <GapDesk
            form={gaps.form}
            people={people}
            places={layers.filter((layer) => layer.purpose === 'place')}
            answer={gaps.answer}
            error={gaps.error}
            waits={gaps.waits}
            onForm={gaps.setForm}
            onChoose={onGap}
            kept={gaps.kept}
            onKeep={gaps.setKept}
            onPropose={() => onPlace({ kind: 'propose' })}
            onGo={onGo}
            onClose={onClose}
          >
            <OpenProposals onOpen={(id) => onPlace({ kind: 'proposal', id })} />
          </GapDesk>
        </Suspense>
      ) : null
    case 'propose':
      return makeIn && gaps.kept.length > 0 ? (
        <Suspense>
          <ProposeDesk
            kept={gaps.kept}
            onKeep={gaps.setKept}
            layers={layers.filter((layer) => layer.may.add)}
            places={placesOf(layers, gaps.form?.places ?? [])}
            calendarId={makeIn}
            reader={reader}
            nameOf={(id) => names.get(id) ?? 'somebody'}
            onAsked={(id) => {
              gaps.setKept([])
              onPlace({ kind: 'proposal', id })
            }}
            onBack={() => onPlace({ kind: 'gaps' })}
            onClose={onClose}
          />
        </Suspense>
      ) : null
    case 'proposal':
      return (
        <Suspense>
          <ProposalDesk proposalId={place.id} onGo={onGo} onSettled={onSettled} onClose={onClose} />
        </Suspense>
      )
    case 'clashes':
      return (
        <Suspense
          fallback={
            <Desk title="Clashes" onClose={onClose}>
              {null}
            </Desk>
          }
        >
          <ClashDesk
            clashes={clashes.all}
            days={clashes.days}
            more={clashes.more}
            error={clashes.error}
            layers={layers}
            names={names}
            groupId={group?.id ?? null}
            onMove={onEdit}
            onTakeOff={onTakeOff}
            onFine={(clash) => void clashes.fine(clash)}
            onGo={onGo}
            onClose={onClose}
          />
        </Suspense>
      )
    case 'free':
      return (
        <Suspense
          fallback={
            <Desk title="Who is free?" onClose={onClose} half>
              {null}
            </Desk>
          }
        >
          <FreeDesk
            form={free}
            zone={zone}
            groupId={group?.id ?? null}
            today={today}
            people={people}
            onForm={onFree}
            onMake={onMake}
            onGaps={onGaps}
            onGo={onGo}
            onClose={onClose}
          />
        </Suspense>
      )
    case 'newGroup':
      return (
        <Suspense>
          <NewGroupDesk onMade={onGroup} onClose={onClose} />
        </Suspense>
      )
  }
}

function NotThere({
  sentence = 'It is no longer shared with you, or was deleted. Ask its coordinator if you expected it.',
  onClose,
}: {
  sentence?: string
  onClose: () => void
}) {
  return (
    <Desk title="Not there" onClose={onClose}>
      <p>{sentence}</p>
    </Desk>
  )
}
