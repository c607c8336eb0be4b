import { type FormEvent, useState } from 'react'
import type { Schema } from '../../api/client'
import { Button } from '../../ui/Button'
import { Note } from '../../ui/Note'

type Member = Schema['GroupsMemberBody']

interface GuardiansFormProps {
  member: Member
  /** Who can be chosen: people of one's groups. */
  people: readonly { personId: string; name: string }[]
  onSave: (guardians: string[]) => void
  onClose: () => void
}

/** Who sees and answers for a member. */
export function GuardiansForm({ member, people, onSave, onClose }: GuardiansFormProps) {
  const [chosen, setChosen] = useState<readonly string[]>(member.guardians.map((one) => one.personId))
  const [words, setWords] = useState('')
  const all = [
    ...member.guardians,
    ...people.filter(
      (one) =>
        one.personId !== member.personId &&
        !member.guardians.some((guardian) => guardian.personId === one.personId),
    ),
  ].filter(
    (one) => chosen.includes(one.personId) || one.name.toLowerCase().includes(words.trim().toLowerCase()),
  )
  const submit = (event: FormEvent) => {
    event.preventDefault()
    onSave([...chosen])
  }
  return (
    <form onSubmit={submit} className="grid gap-2">
      <p className="written font-bold">Guardians of {member.name}</p>
      <Note>
        They see what {member.name} sees in this group, up to View, and answer for them here.{' '}
        {member.hasAccount
          ? `${member.name} is asked first.`
          : 'From outside the group, they are asked first.'}{' '}
        Somebody without an account: add them to this group, with an address, and they get their own way in.
      </Note>
      <input
        aria-label="Look for a guardian by name"
        placeholder="Look for a name"
        value={words}
        onChange={(event) => setWords(event.target.value)}
        className="w-64 rounded-control border border-cement-500 bg-surface px-2 py-1.5"
      />
      <ul className="grid max-h-52 grid-cols-2 gap-x-4 overflow-y-auto max-sm:grid-cols-1">
        {all.map((one) => (
          <li key={one.personId}>
            <label className="written flex items-center gap-2 py-0.5">
              <input
                type="checkbox"
                checked={chosen.includes(one.personId)}
                onChange={(event) =>
                  setChosen(
                    event.target.checked
                      ? [...chosen, one.personId]
                      : chosen.filter((id) => id !== one.personId),
                  )
                }
                className="size-4 accent-ink"
              />
              {one.name}
            </label>
          </li>
        ))}
      </ul>
      <div className="flex gap-2">
        <Button type="submit" look="main">
          Save
        </Button>
        <Button onClick={onClose}>Cancel</Button>
      </div>
    </form>
  )
}
