import { type FormEvent, useState } from 'react'
import { Link as Anchor } from 'react-router'
import type { Schema } from '../../api/client'
import { fieldProblem } from '../../api/problem'
import type { Layer } from '../../model/bricks'
import { lowerSteps, type Role, roleName, stepsOn } from '../../model/ladder'
import { endLink, putLink, renewLink } from '../../model/linkQueries'
import { longDayText } from '../../reader/dates'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { FormProblem } from '../../ui/FormProblem'
import { LastDayField } from '../../ui/LastDayField'
import { Note } from '../../ui/Note'
import { Question } from '../../ui/Question'
import { TextField } from '../../ui/TextField'
import { useChange } from '../../undo/useChange'
import { MadeLink } from './MadeLink'

type Link = Schema['ListAccessLinkBody']

/** Links to a calendar to hand round: made, renewed, ended. */
export function LinksPart({ layer, links }: { layer: Layer; links: readonly Link[] }) {
  const [writing, setWriting] = useState(false)
  const [name, setName] = useState('')
  const [role, setRole] = useState<Role>('view')
  const [uses, setUses] = useState('')
  const [lastDay, setLastDay] = useState<string | null>(null)
  const [made, setMade] = useState<Schema['LinksMadeBody'] | null>(null)
  const [ending, setEnding] = useState<Link | null>(null)
  const change = useChange<Schema['LinksMadeBody'] | undefined>(
    ['access', 'shelf'],
    (made) => {
      setMade(made ?? null)
      setWriting(false)
    },
    { saysItself: true },
  )
  const make = (event: FormEvent) => {
    event.preventDefault()
    change.mutate({
      act: (set) =>
        putLink(
          layer.calendarId,
          crypto.randomUUID(),
          {
            role,
            name,
            ...(uses.trim() ? { mostUses: Number(uses) } : {}),
            ...(lastDay ? { lastDay } : {}),
          },
          set,
        ),
      sentence: `Made a link to “${layer.name}”.`,
    })
  }
  const end = (link: Link) => {
    setEnding(null)
    change.mutate({
      act: async (set) => {
        await endLink(layer.calendarId, link.linkId, set)
        return undefined
      },
      sentence: `Ended ${linkName(link)}.`,
    })
  }
  return (
    <section aria-label="Links" className="mt-6 grid gap-3">
      <h3 className="text-base">Links to hand round</h3>
      {links.length > 0 && (
        <ul className="divide-y divide-cement-200 border-y border-cement-200">
          {links.map((link) => (
            <li key={link.linkId} className="py-2">
              <p className="written font-bold">{link.name || 'Without a name'}</p>
              <Note>{stateOf(link)}</Note>
              <div className="mt-1 flex gap-3 text-[12px]">
                <Button
                  look="link"
                  onClick={() =>
                    change.mutate({
                      act: (set) => renewLink(layer.calendarId, link.linkId, set),
                      sentence: `Renewed ${linkName(link)}. The old address leads nowhere now.`,
                      isFinal: true,
                    })
                  }
                >
                  Renew
                </Button>
                <Anchor
                  to={`/calendars/${layer.calendarId}/links/${link.linkId}`}
                  className="underline underline-offset-2"
                >
                  See what it shows
                </Anchor>
                <Button look="link" onClick={() => setEnding(link)}>
                  End
                </Button>
              </div>
            </li>
          ))}
        </ul>
      )}
      {made?.url && <MadeLink url={made.url} qr={made.qr ?? ''} onClose={() => setMade(null)} />}
      {writing ? (
        <form onSubmit={make} className="grid gap-3" noValidate>
          <TextField
            label="What you call it"
            value={name}
            onChange={setName}
            placeholder="On the studio door"
            problem={fieldProblem(change.error, 'name')}
            autoFocus
          />
          <Choice
            label="Step of the link"
            value={role}
            onChange={setRole}
            options={stepsOn(lowerSteps, layer)}
            problem={fieldProblem(change.error, 'role')}
            hint="Who only opens it reads, up to View. Who puts it on their wall has the step."
          />
          <TextField
            label="For how many people (empty for any number)"
            type="number"
            value={uses}
            onChange={setUses}
            problem={fieldProblem(change.error, 'mostUses')}
          />
          <LastDayField
            label="Last day of the link"
            value={lastDay}
            onChange={setLastDay}
            problem={fieldProblem(change.error, 'lastDay')}
          />
          <FormProblem error={change.error} fields={['name', 'role', 'mostUses', 'lastDay']} />
          <div className="flex gap-2">
            <Button type="submit" look="main" disabled={change.isPending}>
              Make the link
            </Button>
            <Button onClick={() => setWriting(false)}>Cancel</Button>
          </div>
        </form>
      ) : (
        <div>
          <Button onClick={() => setWriting(true)}>New link</Button>
        </div>
      )}
      {ending && (
        <Question
          title={`End ${linkName(ending)}?`}
          yes="End the link"
          onYes={() => end(ending)}
          onClose={() => setEnding(null)}
        >
          {ending.holders === 0
            ? 'It leads nowhere from then on. Nobody has the calendar by it now.'
            : `It leads nowhere from then on, and “${layer.name}” leaves the walls of ${ending.holders} who have it by this link alone. What they added stays.`}
        </Question>
      )}
    </section>
  )
}

const linkName = (link: Link): string => (link.name ? `the link “${link.name}”` : 'a link without a name')

function stateOf({ role, eventTitle, mostUses, uses, holders, lastDay }: Link): string {
  return [
    roleName(role),
    eventTitle === null ? null : `to “${eventTitle}” alone`,
    eventTitle === null ? `on ${holders} ${holders === 1 ? 'wall' : 'walls'}` : null,
    mostUses === null ? null : `${uses} of ${mostUses} uses`,
    lastDay === null ? null : `until ${longDayText(lastDay)}`,
  ]
    .filter((part) => part !== null)
    .join(', ')
}
