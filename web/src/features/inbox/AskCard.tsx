import { useState } from 'react'
import type { Schema } from '../../api/client'
import { grantAsk, refuseAsk } from '../../model/accessQueries'
import { ladder, type Role, roleName } from '../../model/ladder'
import { momentText } from '../../reader/dates'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { useBroughtIntoView } from '../../ui/useBroughtIntoView'
import { useAct } from '../../undo/useAct'

/** A request for access, brought before the eye where a mail led to it, with the coordinator's answer: that step, a lower or a higher one, or no. */
export function AskCard({ ask, isMeant }: { ask: Schema['InboxAskBody']; isMeant: boolean }) {
  const card = useBroughtIntoView<HTMLLIElement>(isMeant)
  const [role, setRole] = useState<Role>(ask.role)
  const answer = useAct({
    run: (give: boolean, set) => (give ? grantAsk(ask.id, role, set) : refuseAsk(ask.id, set)),
    say: (_, give) =>
      give ? `${ask.from} was given ${roleName(role)} on “${ask.calendarName}”.` : `${ask.from} was told no.`,
    freshen: ['access', 'inbox'],
  })
  return (
    <li ref={card} tabIndex={-1} className="grid gap-2 rounded-control border-2 border-ink bg-surface p-4">
      <h2 className="written text-lg">
        {ask.from} asks for {roleName(ask.role)} on “{ask.calendarName}”
      </h2>
      <p className="written text-[12px] text-cement-700">{ask.address}</p>
      {ask.note && (
        <blockquote className="written border-l-4 border-cement-300 pl-3 whitespace-pre-line">
          {ask.note}
        </blockquote>
      )}
      <div className="flex flex-wrap items-end gap-2">
        <div className="w-40">
          <Choice label="Step to give" value={role} onChange={setRole} options={ladder} />
        </div>
        <Button look="main" disabled={answer.isPending} onClick={() => answer.mutate(true)}>
          Give access
        </Button>
        <Button disabled={answer.isPending} onClick={() => answer.mutate(false)}>
          Say no
        </Button>
        <span className="ml-auto text-[12px] text-cement-600">{momentText(ask.askedAt)}</span>
      </div>
    </li>
  )
}
