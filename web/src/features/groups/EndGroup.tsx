import { useQuery } from '@tanstack/react-query'
import { type FormEvent, useState } from 'react'
import { useNavigate } from 'react-router'
import type { Schema } from '../../api/client'
import { fieldProblem } from '../../api/problem'
import { deleteGroup, groupEndingQuery, putToRest, wakeGroup } from '../../model/groupQueries'
import { Button } from '../../ui/Button'
import { FormProblem } from '../../ui/FormProblem'
import { Note } from '../../ui/Note'
import { TextField } from '../../ui/TextField'
import { useBroughtIntoView } from '../../ui/useBroughtIntoView'
import { useAct } from '../../undo/useAct'

type Group = Schema['GroupsGroupBody']
type Ending = Schema['EndGroupEndingBody']

/** Ends a group: to rest and back, or to the bin. Says first what goes with it. */
export function EndGroup({ group }: { group: Group }) {
  const navigate = useNavigate()
  const [asked, setAsked] = useState<'rest' | 'bin' | null>(null)
  const ending = useQuery({ ...groupEndingQuery(group.id), enabled: asked !== null })
  const wake = useAct({
    run: (groupId: string, set) => wakeGroup(groupId, set),
    say: () => `“${group.name}” is at work again, with its calendars on everybody’s wall.`,
    freshen: 'all',
  })
  return (
    <section aria-labelledby="end-group" className="mt-8 grid gap-3 border-t border-cement-300 pt-5">
      <h2 id="end-group" className="text-lg">
        {group.restsSince ? 'At rest' : 'End the group'}
      </h2>
      <Note>
        {group.restsSince
          ? 'Its calendars are read and not changed, and off everybody’s wall, until somebody who coordinates it wakes it.'
          : 'A term or a season is over: at rest the group is read and not changed, and its calendars leave everybody’s wall. It can be woken at any time, and a new group can be made like it.'}
      </Note>
      {asked === null && (
        <div className="flex flex-wrap gap-2">
          {group.restsSince ? (
            <Button disabled={wake.isPending} onClick={() => wake.mutate(group.id)}>
              Wake the group
            </Button>
          ) : (
            <Button onClick={() => setAsked('rest')}>Put the group to rest</Button>
          )}
          <Button look="danger" onClick={() => setAsked('bin')}>
            Put the group in the bin
          </Button>
        </div>
      )}
      {asked === 'rest' && (
        <RestQuestion
          group={group}
          ending={ending.data}
          onDone={() => void navigate('/roster')}
          onClose={() => setAsked(null)}
        />
      )}
      {asked === 'bin' && (
        <BinForm
          group={group}
          ending={ending.data}
          onDone={() => void navigate('/bin')}
          onClose={() => setAsked(null)}
        />
      )}
    </section>
  )
}

interface EndProps {
  group: Group
  ending: Ending | undefined
  onDone: () => void
  onClose: () => void
}

function RestQuestion({ group, ending, onDone, onClose }: EndProps) {
  const shown = useBroughtIntoView<HTMLDivElement>(ending !== undefined)
  const rest = useAct({
    run: (groupId: string, set) => putToRest(groupId, set),
    say: () => `“${group.name}” is at rest. It is found again in the groups’ menu.`,
    freshen: 'all',
    onDone,
  })
  return (
    <div ref={shown} tabIndex={-1} className="grid gap-3 border-2 border-ink p-3">
      <h3 className="text-base">Put “{group.name}” to rest?</h3>
      {ending && <RestText ending={ending} />}
      <div className="flex gap-2">
        <Button look="main" disabled={!ending || rest.isPending} onClick={() => rest.mutate(group.id)}>
          Put to rest
        </Button>
        <Button onClick={onClose}>Leave it at work</Button>
      </div>
    </div>
  )
}

function RestText({ ending: { rest, stay, members } }: { ending: Ending }) {
  return (
    <p className="written">
      {rest.length === 0
        ? 'It has no calendars.'
        : `${listed(rest)} ${rest.length === 1 ? 'leaves' : 'leave'}`}
      {rest.length > 0 && ` the walls of ${members === 1 ? 'its one member' : `its ${members} members`}`}
      {rest.length > 0 && ', with links and noticeboards, and nobody is reminded of what is in them.'}
      {stay.length > 0 &&
        ` ${listed(stay)} ${stay.length === 1 ? 'stays, since it is' : 'stay, since they are'} of one person’s time.`}
    </p>
  )
}

/** To the bin, which takes the group's name as the answer. */
function BinForm({ group, ending, onDone, onClose }: EndProps) {
  const [name, setName] = useState('')
  const erase = useAct({
    run: (typed: string, set) => deleteGroup(group.id, typed, set),
    say: () => `“${group.name}” is in the bin for 30 days.`,
    freshen: 'all',
    saysItself: true,
    onDone,
  })
  const submit = (event: FormEvent) => {
    event.preventDefault()
    erase.mutate(name)
  }
  const whyNot = ending?.whyNotBin ?? null
  const all = ending ? [...ending.rest, ...ending.stay] : []
  return (
    <form onSubmit={submit} className="grid gap-3 border-2 border-clash p-3" noValidate>
      <h3 className="text-base">Put “{group.name}” in the bin, for everybody?</h3>
      {ending &&
        (whyNot !== null ? (
          <p className="written">{whyNot}</p>
        ) : (
          <p className="written">
            {all.length > 0 && `${listed(all)} ${all.length === 1 ? 'goes' : 'go'} with it. `}
            {ending.members === 1 ? 'Its one member loses' : `Its ${ending.members} members lose`} it and what
            was given to it elsewhere. It waits in the bin for 30 days and can be brought back from there
            whole.
          </p>
        ))}
      {ending && whyNot === null && (
        <TextField
          label={`Type its name: ${group.name}`}
          value={name}
          onChange={setName}
          problem={fieldProblem(erase.error, 'name')}
          autoComplete="off"
          autoFocus
        />
      )}
      <FormProblem error={erase.error} fields={['name']} />
      <div className="flex gap-2">
        {whyNot === null && (
          <Button type="submit" look="danger" disabled={name.trim() === '' || erase.isPending}>
            Put in the bin
          </Button>
        )}
        <Button onClick={onClose}>Keep it</Button>
      </div>
    </form>
  )
}

/** Some names in a row, so many as are read: "Rota, Classes and 5 more". */
function listed(names: readonly string[]): string {
  const told = names.length > 5 ? [...names.slice(0, 4), `${names.length - 4} more`] : [...names]
  return told.length > 1 ? `${told.slice(0, -1).join(', ')} and ${told.at(-1)}` : (told[0] ?? '')
}
