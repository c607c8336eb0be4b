import { useQuery } from '@tanstack/react-query'
import { sentenceOf } from '../../api/problem'
import { dateOf } from '../../model/times'
import { Button } from '../../ui/Button'
import { Desk } from '../../ui/Desk'
import { useAct } from '../../undo/useAct'
import {
  askAgain,
  type CountedProposal,
  proposalsQuery,
  settleProposal,
  withdrawProposal,
} from './proposalQueries'
import { timeText } from './SuitsForm'

interface ProposalDeskProps {
  proposalId: string
  onGo: (day: string) => void
  /** It became an event. */
  onSettled: (eventId: string, day: string) => void
  onClose: () => void
}

/** How the proposed times suit those who were asked, and which one is settled. */
export function ProposalDesk({ proposalId, onGo, onSettled, onClose }: ProposalDeskProps) {
  const all = useQuery(proposalsQuery)
  const one = all.data?.toSettle.find((row) => row.id === proposalId)
  const settle = useAct({
    run: (time: CountedProposal['times'][number], set) => settleProposal(proposalId, time.at, set),
    say: (_, time) => `Settled: ${timeText(time)}. All who were asked are told.`,
    freshen: ['wall', 'proposals', 'inbox'],
    onDone: ({ eventId }, time) => onSettled(eventId, dateOf(time.start)),
  })
  const withdraw = useAct({
    run: (_, set) => withdrawProposal(proposalId, set),
    say: () => 'Taken back: nobody is asked any more.',
    freshen: ['proposals', 'inbox'],
    onDone: onClose,
  })
  const remind = useAct({
    run: () => askAgain(proposalId),
    say: () => 'Wrote again to those who have not answered.',
    isFinal: () => true,
    freshen: [],
  })
  const isBusy = settle.isPending || withdraw.isPending || remind.isPending
  return (
    <Desk title={one ? one.title : 'Which suits?'} onClose={onClose}>
      {all.isError && <p role="alert">{sentenceOf(all.error)}</p>}
      {all.isSuccess && !one && (
        <p className="text-cement-700">It is settled or was taken back. Press F to look for other times.</p>
      )}
      {one && (
        <div className="grid gap-3">
          <p className="text-[13px] text-cement-700">
            {answered(one)} of {one.people.length} answered. It goes to{' '}
            <span className="written">{one.calendarName}</span>.
          </p>
          <ol className="grid gap-2">
            {one.times.map((time) => (
              <li
                key={time.at}
                data-best={time.at === one.best}
                className="grid gap-1.5 border border-gap-edge bg-gap-tint p-2 data-[best=true]:border-2 data-[best=true]:border-ink"
              >
                <button
                  type="button"
                  onClick={() => onGo(dateOf(time.start))}
                  title="Show it on the wall"
                  className="text-left font-bold hover:underline"
                >
                  {timeText(time)}
                </button>
                <Said label="Suits" people={time.suits} of={one} />
                <Said label="Would do" people={time.wouldDo} of={one} />
                <Said label="Does not suit" people={time.doesNotSuit} of={one} />
                <div className="flex items-center justify-between gap-2">
                  <Button
                    look={time.at === one.best ? 'main' : 'plain'}
                    disabled={isBusy}
                    onClick={() => settle.mutate(time)}
                  >
                    Settle on this
                  </Button>
                  {time.at === one.best && <span className="text-[12px]">suits best so far</span>}
                </div>
              </li>
            ))}
          </ol>
          {one.people.some((person) => person.comment) && (
            <ul className="grid gap-1">
              {one.people
                .filter((person) => person.comment)
                .map((person) => (
                  <li key={person.id} className="written text-[13px]">
                    <b>{person.name}:</b> {person.comment}
                  </li>
                ))}
            </ul>
          )}
          {silent(one).length > 0 && (
            <div className="grid gap-1.5">
              <p className="written text-[13px] text-cement-700">
                Not answered yet: {silent(one).join(', ')}
              </p>
              <div>
                <Button disabled={isBusy} onClick={() => remind.mutate()}>
                  Write to them again
                </Button>
              </div>
            </div>
          )}
          <div>
            <Button look="link" disabled={isBusy} onClick={() => withdraw.mutate()}>
              Take the question back
            </Button>
          </div>
        </div>
      )}
    </Desk>
  )
}

function Said({ label, people, of }: { label: string; people: readonly string[]; of: CountedProposal }) {
  if (people.length === 0) return null
  return (
    <p className="written text-[13px]">
      <b>
        {label} {people.length}:
      </b>{' '}
      {people.map((id) => of.people.find((person) => person.id === id)?.name).join(', ')}
    </p>
  )
}

const hasSaid = (one: CountedProposal, id: string) => one.times.some((time) => !time.silent.includes(id))

export const answered = (one: CountedProposal): number =>
  one.people.filter((person) => hasSaid(one, person.id)).length

const silent = (one: CountedProposal): string[] =>
  one.people.filter((person) => !hasSaid(one, person.id)).map((person) => person.name)
