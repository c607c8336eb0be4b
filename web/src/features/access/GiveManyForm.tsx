import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import type { Schema } from '../../api/client'
import { fieldProblem, sentenceOf } from '../../api/problem'
import { inviteMany, readInvitees } from '../../model/accessQueries'
import type { Layer } from '../../model/bricks'
import { ladder, type Role } from '../../model/ladder'
import { Alert } from '../../ui/Alert'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { LastDayField } from '../../ui/LastDayField'
import { ListedPeople, turnedOver } from '../../ui/ListedPeople'
import { TextArea } from '../../ui/TextArea'
import { useAct } from '../../undo/useAct'
import { becameText } from './stepWords'

type Entry = Schema['InviteManyEntryBody']

const fates: Record<Entry['fate'], string> = {
  invited: 'gets an invitation',
  invitedAlready: 'invited already',
  hasStep: 'has access already',
  again: 'in the list before',
  noAddress: 'no address',
  unreadable: 'not understood',
}

/** Gives many people access at once: pasted in any shape, each understood and mended in its row. */
export function GiveManyForm({ layer, onOne }: { layer: Layer; onOne: () => void }) {
  const [text, setText] = useState('')
  // What is doubtful is left out until somebody ticks it; the rest is in until somebody does not want it.
  const [turned, setTurned] = useState<ReadonlySet<string>>(new Set())
  const [role, setRole] = useState<Role>('view')
  /** Those who get another step than the rest, by their rows. */
  const [others, setOthers] = useState<ReadonlyMap<string, Role>>(new Map())
  const [message, setMessage] = useState('')
  const [lastDay, setLastDay] = useState<string | null>(null)
  const read = useQuery({ ...readInvitees(layer.calendarId, text), enabled: text.trim() !== '' })
  const entries = text.trim() === '' ? [] : (read.data ?? [])
  const isTaken = (entry: Entry, index: number) =>
    entry.fate === 'invited' && (entry.doubt === null) !== turned.has(keyOf(entry, index))
  const taken = entries.flatMap((entry, index) =>
    isTaken(entry, index) && entry.address
      ? [{ address: entry.address, role: others.get(keyOf(entry, index)) ?? role }]
      : [],
  )
  const send = useAct({
    run: (_, set) =>
      inviteMany(
        layer.calendarId,
        {
          people: taken.map((one) => ({ id: crypto.randomUUID(), ...one })),
          message,
          inReturn: false,
          ...(lastDay ? { lastDay } : {}),
        },
        set,
      ),
    say: becameText,
    freshen: ['access'],
    onDone: () => {
      setText('')
      setTurned(new Set())
      setOthers(new Map())
      setMessage('')
      setLastDay(null)
    },
    saysItself: true,
  })
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault()
        send.mutate()
      }}
      className="grid gap-3"
      noValidate
    >
      <TextArea
        label="Mail addresses, one a line or pasted from anywhere"
        rows={5}
        value={text}
        onChange={setText}
        problem={fieldProblem(send.error, 'people') ?? fieldProblem(send.error, 'address')}
      />
      <Choice label="Step for all" value={role} onChange={setRole} options={ladder} />
      <ListedPeople
        entries={entries.map((entry, index) => {
          const key = keyOf(entry, index)
          const name = entry.name || entry.text
          return {
            key,
            text: entry.text,
            name,
            address: entry.address ?? '',
            doubt: entry.doubt,
            fate: entry.fate,
            note: fates[entry.fate],
            isTaken: isTaken(entry, index),
            canBeTaken: entry.fate === 'invited',
            choice: isTaken(entry, index) && (
              <select
                aria-label={`Step of ${name}`}
                value={others.get(key) ?? role}
                onChange={(event) => {
                  const chosen = ladder.find((step) => step.value === event.target.value)
                  if (chosen) setOthers(new Map([...others, [key, chosen.value]]))
                }}
                className="mt-0.5 block rounded-control border border-cement-400 bg-surface px-1 text-[12px]"
              >
                {ladder.map((step) => (
                  <option key={step.value} value={step.value}>
                    {step.label}
                  </option>
                ))}
              </select>
            ),
          }
        })}
        onTurn={(key) => setTurned(turnedOver(turned, key))}
        onMend={setText}
      />
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
      {(read.isError || send.isError) && <Alert>{sentenceOf(send.error ?? read.error)}</Alert>}
      <Button type="submit" look="main" wide disabled={taken.length === 0 || send.isPending}>
        {taken.length === 0
          ? 'Invite them'
          : taken.length === 1
            ? 'Invite one person'
            : `Invite ${taken.length} people`}
      </Button>
      <div>
        <Button look="link" onClick={onOne}>
          Give it to one person
        </Button>
      </div>
    </form>
  )
}

const keyOf = (entry: Entry, index: number): string => `${index} ${entry.text}`
