import { useQueries, useQuery } from '@tanstack/react-query'
import { useRef, useState } from 'react'
import type { Schema } from '../../api/client'
import { sentenceOf } from '../../api/problem'
import { addMembers, groupQueries, readPeople } from '../../model/groupQueries'
import { Alert } from '../../ui/Alert'
import { Button } from '../../ui/Button'
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
  const [mending, setMending] = useState<number | null>(null)
  const read = useQuery({ ...readPeople(groupId, text), enabled: text.trim() !== '' })
  const entries = text.trim() === '' ? [] : (read.data ?? [])
  /** Puts a row back as it was mended, beside the others as they were read. */
  const mend = (index: number, mended: string) => {
    setMending(null)
    if (mended !== entries[index]?.text)
      setText(entries.map((entry, at) => (at === index ? mended : entry.text)).join('\n'))
  }
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
      {entries.length > 0 && (
        <ul
          aria-label="How the list is understood"
          className="max-h-72 overflow-y-auto border border-cement-300 bg-surface"
        >
          {entries.map((entry, index) => (
            <li
              key={keyOf(entry, index)}
              data-fate={entry.fate}
              className="flex items-start gap-2 border-b border-cement-200 px-2 py-1.5 last:border-b-0"
            >
              <input
                type="checkbox"
                aria-label={`Add ${entry.name || entry.text}`}
                checked={isTaken(entry, index)}
                disabled={!comesIn(entry)}
                onChange={() => {
                  const key = keyOf(entry, index)
                  setTurned(
                    turned.has(key)
                      ? new Set([...turned].filter((one) => one !== key))
                      : new Set([...turned, key]),
                  )
                }}
                className="mt-1 size-4 accent-ink"
              />
              {mending === index ? (
                <MendField text={entry.text} onMend={(mended) => mend(index, mended)} />
              ) : (
                <span className="min-w-0 flex-1">
                  <span className="written font-bold">{entry.name || entry.text}</span>{' '}
                  <span className="written text-[12px] text-cement-700">{entry.address ?? ''}</span>
                  {entry.doubt && <span className="written block text-[12px] text-clash">{entry.doubt}</span>}
                </span>
              )}
              <span className="shrink-0 text-[12px] text-cement-700">
                {entry.fate === 'new' && !entry.address ? 'a name, no account' : fates[entry.fate]}
                {mending !== index && (
                  <>
                    {' · '}
                    <Button look="link" onClick={() => setMending(index)}>
                      Mend<span className="sr-only"> {entry.text}</span>
                    </Button>
                  </>
                )}
              </span>
            </li>
          ))}
        </ul>
      )}
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

/** The text of one row, mended where it stands: taken with Enter or by going on, left with Escape. */
function MendField({ text, onMend }: { text: string; onMend: (mended: string) => void }) {
  const [mended, setMended] = useState(text)
  // It goes with the key, and its going takes the focus from it once more.
  const isOver = useRef(false)
  const end = (as: string) => {
    if (isOver.current) return
    isOver.current = true
    onMend(as)
  }
  return (
    <input
      aria-label={`Mend ${text}`}
      value={mended}
      // biome-ignore lint/a11y/noAutofocus: it was asked for by a press on this row
      autoFocus
      onChange={(event) => setMended(event.target.value)}
      onBlur={() => end(mended)}
      onKeyDown={(event) => {
        if (event.key !== 'Enter' && event.key !== 'Escape') return
        event.preventDefault()
        event.stopPropagation()
        end(event.key === 'Enter' ? mended : text)
      }}
      className="written min-w-0 flex-1 rounded-control border border-cement-500 bg-surface px-1.5 py-0.5"
    />
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
