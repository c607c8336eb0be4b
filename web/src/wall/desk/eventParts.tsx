import { titleOf } from '../../model/bricks'
import { daysOf } from '../../model/times'
import { lazyNamed } from '../../ui/lazyNamed'
import { useTheWall } from '../useWall'
import type { PlaceOf } from './deskPlace'
import { OnDesk } from './OnDesk'

const loadEventWriting = () => import('../../features/events/EventWriting')
const EventWriting = lazyNamed(loadEventWriting, 'EventWriting')
const EventReading = lazyNamed(() => import('../../features/events/EventReading'), 'EventReading')
const FindDesk = lazyNamed(() => import('./FindDesk'), 'FindDesk')

// The wall is there before; when it is, so that nobody waits for it on the first press.
if (typeof requestIdleCallback === 'function') requestIdleCallback(() => void loadEventWriting())

export function Writing() {
  const { draft, layers, names, leaveDesk } = useTheWall()
  const { form, sight } = draft
  if (!form || !sight) return null
  const shown = sight.kind === 'writes' ? sight.form : form
  return (
    <OnDesk title={titleOf(shown.title)} onClose={leaveDesk}>
      <EventWriting
        key={`${form.eventId}/${draft.asked}`}
        sight={sight}
        names={names}
        asked={draft.asked}
        form={shown}
        layers={layers}
        met={draft.met}
        onForm={draft.setForm}
        onMet={draft.setMet}
        onClose={draft.close}
        onLeave={leaveDesk}
      />
    </OnDesk>
  )
}

export function Reading({ place: { key } }: { place: PlaceOf<'event'> }) {
  const { draft, layers, names } = useTheWall()
  return (
    <OnDesk onClose={draft.close}>
      <EventReading
        key={key}
        eventKey={key}
        layers={layers}
        names={names}
        onEdit={draft.open}
        onClose={draft.close}
      />
    </OnDesk>
  )
}

export function Finding() {
  const { at, draft, finding, layers, people, moving } = useTheWall()
  return (
    <OnDesk onClose={draft.close}>
      <FindDesk
        search={finding.search}
        asked={finding.asked}
        layers={layers}
        people={people}
        onSearch={finding.setSearch}
        onOpen={(brick) => {
          at.goTo(daysOf(brick.time).first)
          setTimeout(() => moving.open(brick))
        }}
        onClose={draft.close}
      />
    </OnDesk>
  )
}
