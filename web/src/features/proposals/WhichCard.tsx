import { useMutation, useQueryClient } from '@tanstack/react-query'
import { newSet, useActs } from '../../undo/acts'
import { type AskedWhich, type Suiting, saySuits } from './proposalQueries'
import { SuitsForm } from './SuitsForm'

/** Which of several times suit, in the inbox: said there, for oneself or a member one answers for. */
export function WhichCard({ asked }: { asked: AskedWhich }) {
  const queries = useQueryClient()
  const acts = useActs()
  const answer = useMutation({
    mutationFn: async (wish: { said: { at: string; suits: Suiting }[]; comment: string }) => {
      const set = newSet()
      await saySuits(asked.id, { ...wish, for: asked.whose }, set)
      return set
    },
    onSuccess: (set) => acts.done(`${asked.from} reads which times of “${asked.title}” suit.`, set),
    onError: (error) => acts.failed(error),
    onSettled: () => {
      for (const key of ['inbox', 'proposals']) void queries.invalidateQueries({ queryKey: [key] })
    },
  })
  return (
    <li className="grid gap-2 rounded-control border-2 border-ink bg-surface p-4">
      <h2 className="written text-lg">{asked.title}</h2>
      <p className="written">
        {asked.from} asks which of these times suit {asked.name ?? 'you'}.
        {asked.place && <span className="block">{asked.place}</span>}
      </p>
      {asked.notes && <p className="written whitespace-pre-line text-[13px]">{asked.notes}</p>}
      <SuitsForm
        asked={asked}
        isBusy={answer.isPending}
        onSay={(said, comment) => answer.mutate({ said, comment })}
      />
    </li>
  )
}
