import { Card } from '../../ui/Card'
import { useAct } from '../../undo/useAct'
import { type AskedWhich, type Suiting, saySuits } from './proposalQueries'
import { SuitsForm } from './SuitsForm'

/** Which of several times suit, in the inbox: said there, for oneself or a member one answers for. */
export function WhichCard({ asked }: { asked: AskedWhich }) {
  const answer = useAct({
    run: (wish: { said: { at: string; suits: Suiting }[]; comment: string }, set) =>
      saySuits(asked.id, { ...wish, for: asked.whose }, set),
    say: () => `${asked.from} reads which times of “${asked.title}” suit.`,
    freshen: ['proposals', 'inbox'],
  })
  return (
    <Card>
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
    </Card>
  )
}
