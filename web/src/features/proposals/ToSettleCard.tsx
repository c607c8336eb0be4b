import { Link } from 'react-router'
import { dateOf } from '../../model/times'
import { answered } from './ProposalDesk'
import type { CountedProposal } from './proposalQueries'
import { timeText } from './SuitsForm'

/** A question one has put, and how it stands: it leads to where it is settled, beside the wall. */
export function ToSettleCard({ proposal }: { proposal: CountedProposal }) {
  const best = proposal.times.find((time) => time.at === proposal.best)
  const [first] = proposal.times
  if (!first) return null
  return (
    <li className="flex flex-wrap items-baseline justify-between gap-x-4 gap-y-1 rounded-control border border-cement-400 bg-surface px-4 py-3">
      <span>
        <Link
          to={`/roster/${dateOf((best ?? first).start)}?desk=proposal~${proposal.id}`}
          className="written font-bold underline underline-offset-2"
        >
          {proposal.title}
        </Link>
        <span className="block text-[13px] text-cement-700">
          {best ? `Best so far: ${timeText(best)}` : 'Nobody has answered yet.'}
        </span>
      </span>
      <span className="text-[13px]">
        {answered(proposal)} of {proposal.people.length} answered
      </span>
    </li>
  )
}
