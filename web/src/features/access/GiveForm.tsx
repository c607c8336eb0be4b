import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { type FormEvent, useState } from 'react'
import { fieldProblem } from '../../api/problem'
import { accessQueries, invite } from '../../model/accessQueries'
import type { Layer } from '../../model/bricks'
import { groupQueries } from '../../model/groupQueries'
import { ladder, type Role, stepsOn } from '../../model/ladder'
import { Button } from '../../ui/Button'
import { Check } from '../../ui/Check'
import { Choice } from '../../ui/Choice'
import { FormProblem } from '../../ui/FormProblem'
import { LastDayField } from '../../ui/LastDayField'
import { TextArea } from '../../ui/TextArea'
import { TextField } from '../../ui/TextField'
import { useAct } from '../../undo/useAct'
import { GiveManyForm } from './GiveManyForm'

/** Gives one person a step, or many at once. */
export function GiveForm({ layer }: { layer: Layer }) {
  const [many, setMany] = useState(false)
  return many ? (
    <GiveManyForm layer={layer} onOne={() => setMany(false)} />
  ) : (
    <GiveOneForm layer={layer} onMany={() => setMany(true)} />
  )
}

/** Gives somebody a step by address; says in one sentence what that means before it is sent. */
function GiveOneForm({ layer, onMany }: { layer: Layer; onMany: () => void }) {
  const members = useQuery(groupQueries.members(layer.groupId ?? ''))
  const [address, setAddress] = useState('')
  const [role, setRole] = useState<Role>('view')
  const [message, setMessage] = useState('')
  const [lastDay, setLastDay] = useState<string | null>(null)
  const [inReturn, setInReturn] = useState(false)
  const looksWhole = /^\S+@\S+\.\S+$/.test(address.trim())
  const meaning = useQuery({
    ...accessQueries.meaning(layer.calendarId, [address.trim()], role),
    enabled: looksWhole,
    placeholderData: keepPreviousData,
  })
  const send = useAct({
    run: (_, set) =>
      invite(
        layer.calendarId,
        crypto.randomUUID(),
        { address, role, message, inReturn, ...(lastDay ? { lastDay } : {}) },
        set,
      ),
    say: () => `Invitation sent to ${address.trim()}.`,
    freshen: ['access'],
    onDone: () => {
      setAddress('')
      setMessage('')
      setLastDay(null)
      setInReturn(false)
    },
    saysItself: true,
  })
  const suggestions = (members.data ?? []).flatMap((member) =>
    member.address ? [{ value: member.address, label: member.name }] : [],
  )
  const submit = (event: FormEvent) => {
    event.preventDefault()
    send.mutate()
  }
  const known = meaning.data?.people[0]
  return (
    <form onSubmit={submit} className="grid gap-3" noValidate>
      <TextField
        label="Mail address"
        type="email"
        value={address}
        onChange={setAddress}
        suggestions={suggestions}
        problem={fieldProblem(send.error, 'address')}
        placeholder="name@example.org"
        autoComplete="off"
      />
      <Choice label="Step" value={role} onChange={setRole} options={stepsOn(ladder, layer)} />
      <TextArea
        label="A message of your own (if you like)"
        rows={2}
        value={message}
        onChange={setMessage}
        problem={fieldProblem(send.error, 'message')}
      />
      <LastDayField
        label="Last day of the access"
        value={lastDay}
        onChange={setLastDay}
        problem={fieldProblem(send.error, 'lastDay')}
      />
      <Check label="And ask for theirs in return" checked={inReturn} onChange={setInReturn} />
      {looksWhole && meaning.data && (
        <p data-sentence="true" className="written border-l-4 border-ink pl-3">
          {meaning.data.sentence}
          {known && !known.name && (
            <span className="block text-[12px] text-cement-700">
              Nobody in your groups has this address; the mail leads to making an account.
            </span>
          )}
        </p>
      )}
      <FormProblem error={send.error} fields={['address', 'message', 'lastDay']} />
      <Button type="submit" look="main" wide disabled={send.isPending}>
        Give access
      </Button>
      <div>
        <Button look="link" onClick={onMany}>
          Give it to many at once
        </Button>
      </div>
    </form>
  )
}
