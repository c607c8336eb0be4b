import { eventKey } from '../../model/bricks'
import { placesOf } from '../../model/makeIn'
import { useReader } from '../../reader/person'
import { lazyNamed } from '../../ui/lazyNamed'
import { useTheWall } from '../useWall'
import type { PlaceOf } from './deskPlace'
import { OnDesk } from './OnDesk'

const GapDesk = lazyNamed(() => import('../../features/availability/GapDesk'), 'GapDesk')
const FreeDesk = lazyNamed(() => import('../../features/availability/FreeDesk'), 'FreeDesk')
const ClashDesk = lazyNamed(() => import('../../features/availability/ClashDesk'), 'ClashDesk')
const OpenProposals = lazyNamed(() => import('../../features/proposals/OpenProposals'), 'OpenProposals')
const ProposeDesk = lazyNamed(() => import('../../features/proposals/ProposeDesk'), 'ProposeDesk')
const ProposalDesk = lazyNamed(() => import('../../features/proposals/ProposalDesk'), 'ProposalDesk')

export function Gaps() {
  const { at, draft, layers, people, asked, making } = useTheWall()
  const { gaps } = asked
  const { form } = gaps
  return form ? (
    <OnDesk title="Gaps" onClose={draft.close}>
      <GapDesk
        form={form}
        people={people}
        places={layers.filter((layer) => layer.purpose === 'place')}
        answer={gaps.answer}
        error={gaps.error}
        waits={gaps.waits}
        onForm={gaps.setForm}
        onChoose={(gap) => making.takeGap(gap, form.places)}
        kept={gaps.kept}
        onKeep={gaps.setKept}
        onPropose={() => at.place({ kind: 'propose' })}
        onGo={at.showDay}
        onClose={draft.close}
      >
        <OpenProposals onOpen={(id) => at.place({ kind: 'proposal', id })} />
      </GapDesk>
    </OnDesk>
  ) : null
}

export function Proposing() {
  const { at, draft, layers, names, asked, making } = useTheWall()
  const { person } = useReader()
  const { gaps } = asked
  return making.makeIn && gaps.kept.length > 0 ? (
    <OnDesk onClose={draft.close}>
      <ProposeDesk
        kept={gaps.kept}
        onKeep={gaps.setKept}
        layers={layers.filter((layer) => layer.may.add)}
        places={placesOf(layers, gaps.form?.places ?? [])}
        calendarId={making.makeIn}
        reader={person.id}
        nameOf={(id) => names.get(id) ?? 'somebody'}
        onAsked={(id) => {
          gaps.setKept([])
          at.place({ kind: 'proposal', id })
        }}
        onBack={() => at.place({ kind: 'gaps' })}
        onClose={draft.close}
      />
    </OnDesk>
  ) : null
}

export function Proposal({ place }: { place: PlaceOf<'proposal'> }) {
  const { at, draft } = useTheWall()
  return (
    <OnDesk onClose={draft.close}>
      <ProposalDesk
        proposalId={place.id}
        onGo={at.showDay}
        onSettled={(eventId, day) => {
          at.showDay(day)
          at.place({ kind: 'event', key: eventKey(eventId, null) })
        }}
        onClose={draft.close}
      />
    </OnDesk>
  )
}

export function Clashes() {
  const { at, draft, group, layers, names, asked, moving } = useTheWall()
  const { clashing } = asked
  return (
    <OnDesk title="Clashes" onClose={draft.close}>
      <ClashDesk
        clashes={clashing.all}
        days={clashing.days}
        more={clashing.more}
        error={clashing.error}
        layers={layers}
        names={names}
        groupId={group?.id ?? null}
        onMove={draft.open}
        onTakeOff={moving.takeOff}
        onFine={(clash) => void clashing.fine(clash)}
        onGo={at.showDay}
        onClose={draft.close}
      />
    </OnDesk>
  )
}

export function Free() {
  const { at, draft, group, people, zone, asked, making, seeking } = useTheWall()
  return (
    <OnDesk title="Who is free?" half onClose={draft.close}>
      <FreeDesk
        form={asked.free}
        zone={zone}
        groupId={group?.id ?? null}
        today={at.today}
        people={people}
        onForm={asked.setFree}
        onMake={making.makeFor}
        onGaps={seeking.seekFor}
        onGo={at.showDay}
        onClose={draft.close}
      />
    </OnDesk>
  )
}
