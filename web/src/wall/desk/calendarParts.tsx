import { useNavigate } from 'react-router'
import { keepLastGroup } from '../../model/groupQueries'
import { lazyNamed } from '../../ui/lazyNamed'
import { useTheWall } from '../useWall'
import type { PlaceOf } from './deskPlace'
import { NotThere, OnDesk } from './OnDesk'

// Loaded when it is opened first: access, imports and settings are not needed to see a wall.
const CalendarDesk = lazyNamed(() => import('../../features/calendars/CalendarDesk'), 'CalendarDesk')
const NewCalendarDesk = lazyNamed(() => import('../../features/calendars/NewCalendarDesk'), 'NewCalendarDesk')
const NewGroupDesk = lazyNamed(() => import('../../features/groups/NewGroupDesk'), 'NewGroupDesk')
const LookDesk = lazyNamed(() => import('../../features/shelf/LookDesk'), 'LookDesk')
const AskDesk = lazyNamed(() => import('../../features/access/AskDesk'), 'AskDesk')

export function Look({ place: { calendarId } }: { place: PlaceOf<'look'> }) {
  const { draft, layers } = useTheWall()
  const layer = layers.find((one) => one.calendarId === calendarId)
  return layer ? (
    <OnDesk onClose={draft.close}>
      <LookDesk key={calendarId} layer={layer} layers={layers} onClose={draft.close} />
    </OnDesk>
  ) : (
    <NotThere onClose={draft.close} />
  )
}

export function Calendar({ place }: { place: PlaceOf<'calendar'> }) {
  const { at, draft, layers } = useTheWall()
  const layer = layers.find((one) => one.calendarId === place.calendarId)
  return layer ? (
    <OnDesk title={layer.name} onClose={draft.close}>
      <CalendarDesk
        key={layer.calendarId}
        layer={layer}
        part={place.part}
        onPart={(part) => at.place({ ...place, part })}
        onClose={draft.close}
      />
    </OnDesk>
  ) : (
    <NotThere onClose={draft.close} />
  )
}

export function NewCalendar() {
  const { at, draft, group, layers } = useTheWall()
  return group ? (
    <OnDesk onClose={draft.close}>
      <NewCalendarDesk
        key={group.id}
        group={group}
        layers={layers}
        onMade={(calendarId) => at.place({ kind: 'calendar', calendarId, part: 'about' })}
        onClose={draft.close}
      />
    </OnDesk>
  ) : null
}

export function NewGroup() {
  const { at, draft } = useTheWall()
  const navigate = useNavigate()
  return (
    <OnDesk onClose={draft.close}>
      <NewGroupDesk
        onMade={(groupId) => {
          keepLastGroup(groupId)
          at.place({ kind: 'newCalendar' }, { group: groupId })
        }}
        onMadeLike={(groupId) => {
          keepLastGroup(groupId)
          void navigate(`/groups/${groupId}/people`)
        }}
        onClose={draft.close}
      />
    </OnDesk>
  )
}

export function Asking({ place }: { place: PlaceOf<'ask'> }) {
  const { draft, group } = useTheWall()
  return (
    <OnDesk onClose={draft.close}>
      <AskDesk key={place.to} to={place.to} groupId={group?.id} onClose={draft.close} />
    </OnDesk>
  )
}
