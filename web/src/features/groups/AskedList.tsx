import { useQuery } from '@tanstack/react-query'
import { askedQuery } from '../../model/membershipQueries'
import { momentText } from '../../reader/dates'
import { Button } from '../../ui/Button'
import { Note } from '../../ui/Note'

interface AskedListProps {
  groupId: string
  onWithdraw: (personId: string, name: string) => void
}

/** Those who were asked to be in a group and have not answered: nothing else of them is known to it. */
export function AskedList({ groupId, onWithdraw }: AskedListProps) {
  const asked = useQuery(askedQuery(groupId)).data ?? []
  if (asked.length === 0) return null
  return (
    <section aria-label="Asked" className="mt-8">
      <h2 className="mb-1 text-base">Asked, not here yet</h2>
      <p className="mb-2 text-[12px] text-cement-700">
        They find the question in their inbox and by mail. Until they say yes nothing of them is known or
        counted here.
      </p>
      <ul className="divide-y divide-cement-200 border-y border-cement-200 bg-surface">
        {asked.map((one) => (
          <li key={one.personId} className="flex flex-wrap items-center gap-x-4 gap-y-1 px-3 py-2">
            <div className="min-w-48 flex-1">
              <p className="written font-bold">{one.name}</p>
              <Note>asked {momentText(one.askedAt)}</Note>
            </div>
            <Button look="link" onClick={() => onWithdraw(one.personId, one.name)}>
              Take back<span className="sr-only"> the question to {one.name}</span>
            </Button>
          </li>
        ))}
      </ul>
    </section>
  )
}
