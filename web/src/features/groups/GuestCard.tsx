import type { Schema } from '../../api/client'
import { titleOf } from '../../model/bricks'
import { claimGuest } from '../../model/membershipQueries'
import { whenText } from '../../model/whenText'
import { Button } from '../../ui/Button'
import { useAct } from '../../undo/useAct'

/**
 * A group put one on its plan as somebody from outside, by an address of one's own: what waits there, and that it is one.
 * Until one says so nobody there learns that the address has an account; the mail works all the same.
 */
export function GuestCard({ guest }: { guest: Schema['InboxGuestBody'] }) {
  const claim = useAct({
    run: (_, set) => claimGuest(guest.groupId, guest.personId, set),
    say: () => `What “${guest.groupName}” asks ${guest.address} is yours now.`,
    isFinal: () => true,
    freshen: ['proposals', 'wall', 'inbox'],
  })
  return (
    <li className="grid gap-2 rounded-control border-2 border-ink bg-surface p-4">
      <h2 className="written text-lg">
        {guest.from} put “{guest.name}” on the plan of “{guest.groupName}”, at your address {guest.address}
      </h2>
      <ul className="grid gap-1">
        {guest.events.map((event) => (
          <li key={event.eventId} className="written">
            {titleOf(event.title)}, {whenText(event.time)}
          </li>
        ))}
        {guest.proposals.map((title) => (
          <li key={title} className="written">
            {titleOf(title)}: which time suits
          </li>
        ))}
      </ul>
      <p className="max-w-prose text-cement-700">
        Say that it is you, and it is on your wall and you answer here. Who sees the list then reads your name
        as you write it; until then nobody there knows that this address has an account.
      </p>
      <div>
        <Button look="main" disabled={claim.isPending} onClick={() => claim.mutate()}>
          That is me
        </Button>
      </div>
    </li>
  )
}
