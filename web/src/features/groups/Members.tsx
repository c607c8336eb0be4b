import { useQueries, useQuery } from '@tanstack/react-query'
import { type FormEvent, useState } from 'react'
import { useNavigate } from 'react-router'
import type { Schema } from '../../api/client'
import { fieldProblem } from '../../api/problem'
import {
  correctMember,
  endMembership,
  type Going,
  groupQueries,
  removeGuest,
  setGuardians,
} from '../../model/groupQueries'
import { withdrawAsking } from '../../model/membershipQueries'
import { useReader } from '../../reader/person'
import { Button } from '../../ui/Button'
import { TextField } from '../../ui/TextField'
import { TextLink } from '../../ui/TextLink'
import { useChange } from '../../undo/useChange'
import { AddPeople } from './AddPeople'
import { AskedList } from './AskedList'
import { GuardiansForm } from './GuardiansForm'
import { GuestList } from './GuestList'
import { MemberLine } from './MemberLine'
import { TakeOut } from './TakeOut'

/** What shows who is in a group. */
const changed = ['shelf', 'access'] as const

type Member = Schema['GroupsMemberBody']
type Group = Schema['GroupsGroupBody']

/** Who is in a group, and those who may be. */
export function Members({ group, members }: { group: Group; members: readonly Member[] }) {
  const [correcting, setCorrecting] = useState<string | null>(null)
  const [ending, setEnding] = useState<Member | null>(null)
  const [guarding, setGuarding] = useState<string | null>(null)
  const known = useKnown()
  const { person: me } = useReader()
  const change = useChange(changed)
  const navigate = useNavigate()
  const end = (member: Member, going: Going) => {
    setEnding(null)
    const isMe = member.personId === me.id
    change.mutate(
      {
        act: (set) => endMembership(group.id, member.personId, going, set),
        sentence: isMe ? `You left “${group.name}”.` : `Took ${member.name} out of “${group.name}”.`,
      },
      // Whoever left has nothing to see here any more.
      { onSuccess: () => isMe && navigate('/') },
    )
  }
  return (
    <div className="mx-auto grid max-w-6xl grid-cols-[minmax(0,1fr)_22rem] gap-8 px-6 py-6 max-lg:grid-cols-1 max-sm:px-3">
      <section aria-label="Members">
        <p className="mb-3 text-cement-700">
          {members.length === 1 ? '1 person' : `${members.length} people`},{' '}
          {members.filter((one) => one.hasAccount).length} with an account.{' '}
          {group.coordinates && (
            <TextLink to={`/groups/${group.id}/access`}>Who may see and change what</TextLink>
          )}
        </p>
        <ul className="divide-y divide-cement-200 border-y border-cement-200 bg-surface">
          {members.map((member) => (
            <li key={member.personId} className="px-3 py-2">
              {correcting === member.personId ? (
                <Correct groupId={group.id} member={member} onDone={() => setCorrecting(null)} />
              ) : guarding === member.personId ? (
                <GuardiansForm
                  member={member}
                  people={known.filter(
                    (one) => one.hasAccount || members.some((other) => other.personId === one.personId),
                  )}
                  onClose={() => setGuarding(null)}
                  onSave={(guardians) => {
                    setGuarding(null)
                    change.mutate({
                      act: (set) => setGuardians(group.id, member.personId, guardians, set),
                      sentence:
                        guardians.length === 0
                          ? `${member.name} has no guardians now.`
                          : `The guardians of ${member.name} are chosen. Who has an account is asked first.`,
                    })
                  }}
                />
              ) : (
                <MemberLine
                  group={group}
                  member={member}
                  isMe={member.personId === me.id}
                  onChange={change.mutate}
                  onCorrect={() => setCorrecting(member.personId)}
                  onGuardians={() => setGuarding(member.personId)}
                  onEnd={() => setEnding(member)}
                />
              )}
            </li>
          ))}
        </ul>
        {group.coordinates && (
          <AskedList
            groupId={group.id}
            onWithdraw={(personId, name) =>
              change.mutate({
                act: (set) => withdrawAsking(group.id, personId, set),
                sentence: `${name} is asked no longer.`,
              })
            }
          />
        )}
        <GuestList
          groupId={group.id}
          onRemove={(personId, name) =>
            change.mutate({
              act: (set) => removeGuest(group.id, personId, set),
              sentence: `Took ${name} out. Where they are named they stay named; they are asked nothing more.`,
            })
          }
        />
      </section>
      {group.coordinates && (
        <section aria-label="Add people">
          <h2 className="mb-3 text-lg">Add people</h2>
          <AddPeople groupId={group.id} groupName={group.name} />
        </section>
      )}
      {ending && (
        <TakeOut
          group={group}
          member={ending}
          members={members}
          me={me.id}
          onYes={(going) => end(ending, going)}
          onClose={() => setEnding(null)}
        />
      )}
    </div>
  )
}

function Correct({ groupId, member, onDone }: { groupId: string; member: Member; onDone: () => void }) {
  const [name, setName] = useState(member.name)
  const [address, setAddress] = useState(member.address ?? '')
  const change = useChange(changed, onDone)
  const submit = (event: FormEvent) => {
    event.preventDefault()
    change.mutate({
      act: (set) =>
        correctMember(groupId, member.personId, { name, ...(address.trim() ? { address } : {}) }, set),
      sentence:
        address.trim() && address.trim() !== member.address
          ? `Corrected, and a mail is on its way to ${address.trim()}.`
          : `Corrected ${name}.`,
    })
  }
  return (
    <form onSubmit={submit} className="flex flex-wrap items-start gap-2" noValidate>
      <div className="w-52">
        <TextField
          label="Name"
          value={name}
          onChange={setName}
          problem={fieldProblem(change.error, 'name')}
          autoFocus
        />
      </div>
      <div className="w-64">
        <TextField
          label="Mail address"
          type="email"
          value={address}
          onChange={setAddress}
          problem={fieldProblem(change.error, 'address')}
        />
      </div>
      <div className="flex gap-2 pt-5">
        <Button type="submit" look="main" disabled={change.isPending}>
          Save
        </Button>
        <Button onClick={onDone}>Cancel</Button>
      </div>
    </form>
  )
}

/** Everybody in one's groups, by name. */
function useKnown(): readonly Member[] {
  const groups = useQuery(groupQueries.list)
  return useQueries({
    queries: (groups.data ?? []).map((group) => groupQueries.members(group.id)),
    combine: (results) =>
      [
        ...new Map(
          results.flatMap((one) => one.data ?? []).map((member) => [member.personId, member]),
        ).values(),
      ].toSorted((a, b) => a.name.localeCompare(b.name)),
  })
}
