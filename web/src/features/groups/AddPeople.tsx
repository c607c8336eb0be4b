import { useQueries, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import type { Schema } from '../../api/client'
import { sentenceOf } from '../../api/problem'
import { addMembers, groupQueries, readPeople } from '../../model/groupQueries'
import { Alert } from '../../ui/Alert'
import { Button } from '../../ui/Button'
import { ListedPeople, turnedOver } from '../../ui/ListedPeople'
import { TextArea } from '../../ui/TextArea'
import { useAct } from '../../undo/useAct'

type Entry = Schema['ReadPeopleEntryBody']

const fates: Record<Entry['fate'], string> = {
  new: 'new',
  known: 'has an account, is asked',
  asked: 'asked already',
  alreadyIn: 'in the group already',
  again: 'in the list before',
  unreadable: 'not understood',
}

/** Adds one or many: by hand or pasted in any shape. Each line says how it is understood before anybody is added. */
export function AddPeople({ groupId, groupName }: { groupId: string; groupName: string }) {
  const [text, setText] = useState('')
  // What is doubtful is left out until somebody ticks it; the rest is in until somebody does not want it.
  const [turned, setTurned] = useState<ReadonlySet<string>>(new Set())
  const read = useQuery({ ...readPeople(groupId, text), enabled: text.trim() !== '' })
  const entries = text.trim() === '' ? [] : (read.data ?? [])
  const isTaken = (entry: Entry, index: number) =>
    comesIn(entry) && (entry.doubt === null) !== turned.has(keyOf(entry, index))
  const taken = entries.filter(isTaken)
  const add = useAct({
    run: (_, set) =>
      addMembers(
        groupId,
        taken.map(({ name, address }) => ({
          id: crypto.randomUUID(),
          name,
          ...(address ? { address } : {}),
        })),
        set,
      ),
    say: (arrived) => arrivedText(arrived, groupName),
    freshen: ['groups', 'access'],
    onDone: () => {
      setText('')
      setTurned(new Set())
    },
    saysItself: true,
  })
  const known = useKnown(groupId, text)
  const addKnown = useAct({
    run: (one: Known, set) => addMembers(groupId, [{ id: one.personId, name: one.name }], set),
    say: (arrived) => arrivedText(arrived, groupName),
    freshen: ['groups', 'access'],
    onDone: () => setText(''),
  })
  const asked = taken.filter((one) => one.fate === 'known').length
  const mails = taken.filter((one) => one.fate === 'new' && one.address).length
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault()
        add.mutate()
      }}
      className="grid gap-3"
    >
      <TextArea
        label="Names or mail addresses, one a line or pasted from anywhere"
        rows={5}
        value={text}
        onChange={setText}
      />
      {known.length > 0 && (
        <ul aria-label="People you know" className="flex flex-wrap gap-2">
          {known.map((one) => (
            <li key={one.personId}>
              <Button disabled={addKnown.isPending} onClick={() => addKnown.mutate(one)}>
                Ask {one.name} <span className="text-[12px] text-cement-700">of {one.groupName}</span>
              </Button>
            </li>
          ))}
        </ul>
      )}
      <ListedPeople
        entries={entries.map((entry, index) => ({
          key: keyOf(entry, index),
          text: entry.text,
          name: entry.name || entry.text,
          address: entry.address ?? '',
          doubt: entry.doubt,
          fate: entry.fate,
          note: entry.fate === 'new' && !entry.address ? 'a name, no account' : fates[entry.fate],
          isTaken: isTaken(entry, index),
          canBeTaken: comesIn(entry),
        }))}
        onTurn={(key) => setTurned(turnedOver(turned, key))}
        onMend={setText}
      />
      {taken.length > 0 && (
        <p data-sentence="true" className="border-l-4 border-ink pl-3">
          {sentence(taken.length - asked, mails, asked)}
        </p>
      )}
      {(read.isError || add.isError) && <Alert>{sentenceOf(add.error ?? read.error)}</Alert>}
      <Button type="submit" look="main" wide disabled={taken.length === 0 || add.isPending}>
        {taken.length === 0
          ? 'Add people'
          : taken.length === 1
            ? 'Add one person'
            : `Add ${taken.length} people`}
      </Button>
    </form>
  )
}

interface Known {
  personId: string
  name: string
  groupName: string
}

/** People of one's other groups whose name has what is typed, where that is one name; not those who are in this group. */
function useKnown(groupId: string, text: string): Known[] {
  const typed = text.trim().toLowerCase()
  const isName = typed.length > 1 && !/[\n@,;\t]/.test(typed)
  const groups = useQuery(groupQueries.list)
  const here = useQuery({ ...groupQueries.members(groupId), enabled: isName })
  const others = (groups.data ?? []).filter((one) => one.id !== groupId)
  const lists = useQueries({
    queries: others.map((one) => ({ ...groupQueries.members(one.id), enabled: isName })),
  })
  if (!isName) return []
  const found = new Map<string, Known>()
  lists.forEach((list, index) => {
    for (const one of list.data ?? [])
      if (
        one.hasAccount && // a name without one belongs to its group alone
        one.name.toLowerCase().includes(typed) &&
        !(here.data ?? []).some((member) => member.personId === one.personId)
      )
        found.set(one.personId, {
          personId: one.personId,
          name: one.name,
          groupName: others[index]?.name ?? '',
        })
  })
  return [...found.values()].slice(0, 6)
}

const keyOf = (entry: Entry, index: number): string => `${index} ${entry.text}`

/** Whether an entry can be added at all. */
const comesIn = (entry: Entry): boolean => entry.fate === 'new' || entry.fate === 'known'

function sentence(count: number, mails: number, asked: number): string {
  const questions =
    asked === 0
      ? ''
      : asked === 1
        ? 'One has an account and is asked first, in their inbox and by mail.'
        : `${asked} have accounts and are asked first, in their inbox and by mail.`
  return [count === 0 ? '' : names(count, mails), questions].filter(Boolean).join(' ')
}

/** What became of it, as the answer says. */
function arrivedText({ added, asked, saidNo }: Schema['ChangeMembersAddedBody'], groupName: string): string {
  const people = (count: number) => (count === 1 ? 'One person' : `${count} people`)
  const said = [
    added > 0 && `${people(added)} added to “${groupName}”.`,
    asked > 0 && `${people(asked)} asked to be in “${groupName}”: in with their yes.`,
    saidNo > 0 &&
      `${people(saidNo)} said no within the last 30 days and ${saidNo === 1 ? 'is' : 'are'} not asked again.`,
  ].filter((one) => one !== false)
  return said.length > 0
    ? said.join(' ')
    : `Nobody new for “${groupName}”: they are in it, or were asked already.`
}

/** What comes of names, which are in at once. */
function names(count: number, mails: number): string {
  const come = count === 1 ? 'One person comes in' : `${count} people come in`
  const what = 'with a row on the roster, and can be put on events at once'
  if (mails === 0) return `${come}, ${what}. No mail is sent.`
  return `${come}, ${what}. ${mails === 1 ? 'One gets a mail' : `${mails} get a mail`} that leads here.`
}
