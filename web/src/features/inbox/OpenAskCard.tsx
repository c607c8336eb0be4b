import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import type { Schema } from '../../api/client'
import { giveAsk, refuseOpenAsk } from '../../model/accessQueries'
import { ladder, type Role, roleName } from '../../model/ladder'
import { shelfQuery } from '../../model/shelfQuery'
import { momentText } from '../../reader/dates'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { useBroughtIntoView } from '../../ui/useBroughtIntoView'
import { useAct } from '../../undo/useAct'

interface OpenAskCardProps {
  ask: Schema['InboxOpenAskBody']
  /** Whether a mail led to just this one. */
  isMeant: boolean
}

/** A request for some calendar of one's own or of a group: whoever answers chooses which, and the step. */
export function OpenAskCard({ ask, isMeant }: OpenAskCardProps) {
  const shelf = useQuery(shelfQuery)
  const card = useBroughtIntoView<HTMLLIElement>(isMeant)
  const mine = (shelf.data ?? []).filter(
    (layer) => layer.may.coordinate && (ask.groupId === null || layer.groupId === ask.groupId),
  )
  const [chosen, setChosen] = useState('')
  const [role, setRole] = useState<Role>(ask.role)
  const calendar = mine.find((layer) => layer.calendarId === chosen)
  const answer = useAct({
    run: (give: boolean, set) => (give ? giveAsk(ask.id, chosen, role, set) : refuseOpenAsk(ask.id, set)),
    say: (_, give) =>
      give ? `${ask.from} was given ${roleName(role)} on “${calendar?.name}”.` : `${ask.from} was told no.`,
    freshen: ['access', 'inbox'],
  })
  return (
    <li ref={card} tabIndex={-1} className="grid gap-2 rounded-control border-2 border-ink bg-surface p-4">
      <h2 className="written text-lg">
        {ask.from} asks for a calendar of {ask.groupName ? `“${ask.groupName}”` : 'yours'}, at{' '}
        {roleName(ask.role)}
      </h2>
      <p className="written text-[12px] text-cement-700">{ask.address}</p>
      {ask.note && (
        <blockquote className="written border-l-4 border-cement-300 pl-3 whitespace-pre-line">
          {ask.note}
        </blockquote>
      )}
      <div className="flex flex-wrap items-end gap-2">
        <div className="w-48">
          <Choice
            label="Calendar to give"
            value={chosen}
            onChange={setChosen}
            options={[
              { value: '', label: mine.length === 0 ? 'You coordinate none here' : 'Choose one' },
              ...mine.map((layer) => ({ value: layer.calendarId, label: layer.name })),
            ]}
          />
        </div>
        <div className="w-40">
          <Choice label="Step to give" value={role} onChange={setRole} options={ladder} />
        </div>
        <Button
          look="main"
          disabled={calendar === undefined || answer.isPending}
          onClick={() => answer.mutate(true)}
        >
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
