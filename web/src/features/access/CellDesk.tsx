import { useState } from 'react'
import { useParams } from 'react-router'
import { fieldProblem } from '../../api/problem'
import { endAccess, endGroupAccess, setGroupRole, setRole } from '../../model/accessQueries'
import { ladder, lowerSteps, type Role, reaches, roleName } from '../../model/ladder'
import { endLink, putLink } from '../../model/linkQueries'
import { useReader } from '../../reader/person'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { Desk } from '../../ui/Desk'
import { FormProblem } from '../../ui/FormProblem'
import { LastDayField } from '../../ui/LastDayField'
import { Question } from '../../ui/Question'
import { TextLink } from '../../ui/TextLink'
import { useActs } from '../../undo/acts'
import { useAct } from '../../undo/useAct'
import { type Cell, meaningOf, ownWay, type Place, type Table } from './accessTable'
import { HistoryPart } from './HistoryPart'
import { givenText, lossText } from './stepWords'

/** A chosen cell with what it says. */
export interface Chosen {
  place: Place
  rowName: string
  calendarName: string
  cell: Cell | undefined
}

interface CellDeskProps {
  chosen: readonly Chosen[]
  table: Table
  onClose: () => void
}

/** What can be done with the cells that are chosen: another step, an end to it, none at all; all at once. */
export function CellDesk({ chosen, table, onClose }: CellDeskProps) {
  const acts = useActs()
  const { groupId } = useParams()
  const { person: me } = useReader()
  const [ending, setEnding] = useState(false)
  /** The one of several that was refused. */
  const [refused, setRefused] = useState<Chosen | null>(null)
  const first = chosen[0]
  const own = ownWay(first?.cell)
  const [role, setRoleWish] = useState<Role>(own?.role ?? 'view')
  const [lastDay, setLastDay] = useState<string | null>(own?.lastDay ?? null)
  const change = useAct({
    run: async ({ act }: { act: (one: Place, set: string) => Promise<unknown>; sentence: string }, set) => {
      setRefused(null)
      for (const [index, one] of chosen.entries())
        await act(one.place, set).catch((error: unknown) => {
          // What was done before it stays, and is taken back in one like all of it would be.
          if (chosen.length > 1) setRefused(one)
          if (index > 0) acts.done(`Done for ${index} of ${chosen.length}.`, set)
          throw error
        })
    },
    say: (_, { sentence }) => sentence,
    freshen: ['access', 'shelf'],
    saysItself: true,
  })
  if (!first) return null
  /** What a link is and does besides its step, which stays. */
  const termsOf = (linkId: string) => {
    const link = table.links.find((one) => one.linkId === linkId)
    return { name: link?.name ?? '', ...(link?.mostUses ? { mostUses: link.mostUses } : {}) }
  }
  const withOwn = chosen.filter((one) => ownWay(one.cell))
  const name =
    chosen.length === 1
      ? `${first.rowName} on “${first.calendarName}”`
      : `${chosen.length} cells of the table`
  const steps = chosen.some((one) => one.place.kind !== 'person') ? lowerSteps : ladder
  const give = () =>
    change.mutate({
      act: ({ rowId, kind, calendarId }, set) =>
        kind === 'group'
          ? setGroupRole(calendarId, rowId, role, lastDay, set)
          : kind === 'link'
            ? putLink(calendarId, rowId, { ...termsOf(rowId), role, ...(lastDay ? { lastDay } : {}) }, set)
            : setRole(calendarId, rowId, role, lastDay, set),
      sentence:
        chosen.length === 1 && first.place.kind === 'person'
          ? givenText(first.rowName, first.calendarName, role, first.cell?.stays ?? 'none')
          : `Given ${roleName(role)}: ${name}.`,
    })
  const end = () => {
    setEnding(false)
    change.mutate({
      act: ({ rowId, kind, calendarId }, set) =>
        withOwn.some((one) => one.place.rowId === rowId && one.place.calendarId === calendarId)
          ? kind === 'group'
            ? endGroupAccess(calendarId, rowId, set)
            : kind === 'link'
              ? endLink(calendarId, rowId, set)
              : endAccess(calendarId, rowId, set)
          : Promise.resolve(),
      sentence: `Ended: ${name}.`,
    })
  }
  return (
    <Desk title={chosen.length === 1 ? first.rowName : `${chosen.length} chosen`} onClose={onClose} stays>
      <div className="grid gap-4">
        <WhatIsChosen chosen={chosen} first={first} />
        <form
          onSubmit={(event) => {
            event.preventDefault()
            give()
          }}
          className="grid gap-3"
        >
          <Choice
            label="Step"
            value={role}
            onChange={setRoleWish}
            options={steps}
            problem={fieldProblem(change.error, 'role')}
            hint={higherNote(first, role, chosen.length)}
          />
          <LastDayField
            label="Last day"
            value={lastDay}
            onChange={setLastDay}
            problem={fieldProblem(change.error, 'lastDay')}
          />
          <FormProblem
            error={change.error}
            // Of several calendars it is said which one it is, wherever else it stands.
            fields={refused ? [] : ['role', 'lastDay']}
            before={refused ? `${refused.rowName} on “${refused.calendarName}”: ` : ''}
          />
          <Button type="submit" look="main" wide disabled={change.isPending}>
            {withOwn.length === chosen.length ? 'Change the step' : 'Give the step'}
          </Button>
        </form>
        {withOwn.length > 0 && (
          <Button look="danger" onClick={() => setEnding(true)}>
            End what was given
          </Button>
        )}
        {chosen.length === 1 && first.place.kind === 'link' && (
          <TextLink to={`/calendars/${first.place.calendarId}/links/${first.place.rowId}`}>
            See what it shows
          </TextLink>
        )}
        {chosen.length === 1 && first.place.kind === 'person' && first.place.rowId !== me.id && (
          <TextLink to={`/week?as=${first.place.rowId}&group=${groupId}`}>
            See your calendars as {first.rowName}
          </TextLink>
        )}
      </div>
      {chosen.length === 1 && first.place.kind === 'person' && groupId && (
        <section aria-label="History" className="mt-6">
          <h3 className="mb-2 text-base">What {first.rowName} was given</h3>
          <HistoryPart of={{ groupId, personId: first.place.rowId }} />
        </section>
      )}
      {ending && (
        <Question
          title={`End access: ${name}?`}
          yes="End access"
          onYes={end}
          onClose={() => setEnding(false)}
        >
          {withOwn.map((one) => (
            <p key={`${one.place.rowId}/${one.place.calendarId}`}>{lossOf(one)}</p>
          ))}
          <p>What they added stays.</p>
        </Question>
      )}
    </Desk>
  )
}

function WhatIsChosen({ chosen, first }: { chosen: readonly Chosen[]; first: Chosen }) {
  return chosen.length === 1 ? (
    <p className="written">
      <span className="block font-bold">{first.calendarName}</span>
      {first.cell ? meaningOf(first.place.kind, first.cell) : 'No access.'}
    </p>
  ) : (
    <ul className="written text-[13px]">
      {chosen.slice(0, 8).map((one) => (
        <li key={`${one.place.rowId}/${one.place.calendarId}`}>
          {one.rowName}, {one.calendarName}
        </li>
      ))}
      {chosen.length > 8 && <li>and {chosen.length - 8} more</li>}
    </ul>
  )
}

/** What somebody loses when what was given to them ends. */
function lossOf({ place, rowName, calendarName, cell }: Chosen): string {
  if (place.kind === 'link')
    return `${rowName} leads nowhere from then on, and “${calendarName}” leaves the walls of those who have it by this link alone.`
  return lossText(rowName, calendarName, cell?.stays ?? 'none')
}

/** A step below what somebody has by another way changes nothing: the highest counts. */
function higherNote({ cell }: Chosen, role: Role, count: number): string | undefined {
  const other = cell?.ways.find((one) => one.way !== 'own')?.role ?? 'none'
  return count === 1 && reaches(other, role)
    ? `${roleName(other)} comes by another way, and the highest counts.`
    : undefined
}
