import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { type FormEvent, useState } from 'react'
import { fieldProblem } from '../../api/problem'
import { accessQueries, invite } from '../../model/accessQueries'
import type { Layer } from '../../model/bricks'
import { groupQueries } from '../../model/groupQueries'
import { ladder, type Role } from '../../model/ladder'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { FormProblem } from '../../ui/FormProblem'
import { LastDayField } from '../../ui/LastDayField'
import { TextArea } from '../../ui/TextArea'
import { TextField } from '../../ui/TextField'
import { newSet, useActs } from '../../undo/acts'

/** Gives somebody a step by address; says in one sentence what that means before it is sent. */
export function GiveForm({ layer }: { layer: Layer }) {
  const queries = useQueryClient()
  const acts = useActs()
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
  const send = useMutation({
    mutationFn: async () => {
      const set = newSet()
      await invite(
        layer.calendarId,
        crypto.randomUUID(),
        { address, role, message, inReturn, ...(lastDay ? { lastDay } : {}) },
        set,
      )
      return set
    },
    onSuccess: (set) => {
      acts.done(`Invitation sent to ${address.trim()}.`, set)
      setAddress('')
      setMessage('')
      setLastDay(null)
      setInReturn(false)
      void queries.invalidateQueries({ queryKey: ['access'] })
    },
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
      <Choice label="Step" value={role} onChange={setRole} options={ladder} />
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
      <label className="flex items-center gap-2">
        <input
          type="checkbox"
          checked={inReturn}
          onChange={(event) => setInReturn(event.target.checked)}
          className="size-4 accent-ink"
        />
        And ask for theirs in return
      </label>
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
    </form>
  )
}
