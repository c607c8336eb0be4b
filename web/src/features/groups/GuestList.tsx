import { useQuery } from '@tanstack/react-query'
import { groupQueries } from '../../model/groupQueries'
import { Button } from '../../ui/Button'

interface GuestListProps {
  groupId: string
  onRemove: (personId: string, name: string) => void
}

/** People outside the group who can be named on its events; nothing where there are none. */
export function GuestList({ groupId, onRemove }: GuestListProps) {
  const guests = useQuery({ ...groupQueries.guests(groupId), retry: false })
  if (!guests.data || guests.data.length === 0) return null
  return (
    <section aria-label="Guests" className="mt-8">
      <h2 className="text-lg">Guests</h2>
      <p className="mb-3 text-cement-700">
        Not in the group: named on some event by their address. They see what they are asked to and nothing
        else.
      </p>
      <ul className="divide-y divide-cement-200 border-y border-cement-200 bg-surface">
        {guests.data.map((guest) => (
          <li key={guest.personId} className="flex flex-wrap items-center gap-x-4 gap-y-1 px-3 py-2">
            <p className="min-w-48 flex-1">
              <span className="written block font-bold">{guest.name}</span>
              {guest.address && (
                <span className="written block text-[12px] text-cement-700">{guest.address}</span>
              )}
            </p>
            {guest.mayRemove && (
              <Button look="link" onClick={() => onRemove(guest.personId, guest.name)}>
                Take out<span className="sr-only"> {guest.name}</span>
              </Button>
            )}
          </li>
        ))}
      </ul>
    </section>
  )
}
