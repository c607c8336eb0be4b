import { useQuery } from '@tanstack/react-query'
import { answered } from './ProposalDesk'
import { proposalsQuery } from './proposalQueries'

/** The questions one has put and not settled: below the gaps, where the next one begins. */
export function OpenProposals({ onOpen }: { onOpen: (proposalId: string) => void }) {
  const all = useQuery(proposalsQuery)
  const open = all.data?.toSettle ?? []
  if (open.length === 0) return null
  return (
    <section aria-label="Proposed already" className="border-t border-cement-300 pt-3">
      <h3 className="mb-1 text-base">Proposed already</h3>
      <ul className="grid gap-1">
        {open.map((one) => (
          <li key={one.id}>
            <button
              type="button"
              onClick={() => onOpen(one.id)}
              className="w-full border border-cement-400 bg-surface px-2 py-1.5 text-left hover:bg-cement-100"
            >
              <span className="written block font-bold">{one.title}</span>
              <span className="text-[12px] text-cement-700">
                {one.times.length} times; {answered(one)} of {one.people.length} answered
              </span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  )
}
