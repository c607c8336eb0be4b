import { useQueries, useQuery } from '@tanstack/react-query'
import { type FormEvent, useState } from 'react'
import { Link, useNavigate, useParams } from 'react-router'
import type { Schema } from '../../api/client'
import { fieldProblem, sentenceOf } from '../../api/problem'
import { BarTitle } from '../../frame/BarTitle'
import { TopBar } from '../../frame/TopBar'
import {
  correctMember,
  endMembership,
  groupQueries,
  inviteMember,
  removeGuest,
  setCoordinates,
  setGuardians,
} from '../../model/groupQueries'
import { withdrawAsking } from '../../model/membershipQueries'
import { momentText } from '../../reader/dates'
import { useReader } from '../../reader/person'
import { Button } from '../../ui/Button'
import { TextField } from '../../ui/TextField'
import { useChange } from '../../undo/useChange'
import { AddPeople } from './AddPeople'
import { AskedList } from './AskedList'
import { GuardiansForm } from './GuardiansForm'
import { GuestList } from './GuestList'
import { TakeOut } from './TakeOut'

/** What shows who is in a group. */
const changed = ['groups', 'access', 'shelf', 'wall'] as const

type Member = Schema['GroupsMemberBody']
type Group = Schema['GroupsGroupBody']

/** Who is in a group, with and without accounts; for coordinators also adding, correcting, inviting again, taking out. */
export function MembersPage() {
  const { groupId = '' } = useParams()
  const groups = useQuery(groupQueries.list)
  const members = useQuery({ ...groupQueries.members(groupId), retry: false })
  const group = groups.data?.find((one) => one.id === groupId)
  return (
    <div className="flex h-full flex-col">
      <TopBar>
        <BarTitle text={`People${group ? `: ${group.name}` : ''}`} />
      </TopBar>
      <main className="min-h-0 flex-1 overflow-y-auto bg-cement-50">
        {members.isError && (
          <div className="p-8">
            <p role="alert">{sentenceOf(members.error)}</p>
            <Link to="/" className="underline underline-offset-2">
              Back to the wall
            </Link>
          </div>
        )}
        {group && members.data && <Whole group={group} members={members.data} />}
      </main>
    </div>
  )
}

function Whole({ group, members }: { group: Group; members: readonly Member[] }) {
  const [correcting, setCorrecting] = useState<string | null>(null)
  const [ending, setEnding] = useState<Member | null>(null)
  const [guarding, setGuarding] = useState<string | null>(null)
  const known = useKnown()
  const { person: me } = useReader()
  const change = useChange(changed)
  const navigate = useNavigate()
  const end = (member: Member, leavesEvents: boolean) => {
    setEnding(null)
    const isMe = member.personId === me.id
    change.mutate(
      {
        act: (set) => endMembership(group.id, member.personId, leavesEvents, set),
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
          {members.length} people, {members.filter((one) => one.hasAccount).length} with an account.{' '}
          {group.coordinates && (
            <Link to={`/groups/${group.id}/access`} className="underline underline-offset-2">
              Who may see and change what
            </Link>
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
                <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
                  <div className="min-w-48 flex-1">
                    <p className="written font-bold">
                      {member.name}
                      {member.personId === me.id && ' (you)'}
                    </p>
                    <p className="written text-[12px] text-cement-700">
                      {stateOf(member, group.coordinates)}
                      {guardiansText(member)}
                    </p>
                  </div>
                  {group.coordinates ? (
                    <>
                      {member.hasAccount ? (
                        <label className="flex items-center gap-2 text-[13px]">
                          <input
                            type="checkbox"
                            checked={member.coordinates}
                            onChange={(event) => {
                              // Read now: what is sent later finds the box as it was put back.
                              const coordinates = event.target.checked
                              change.mutate({
                                act: (set) => setCoordinates(group.id, member.personId, coordinates, set),
                                sentence: coordinates
                                  ? `${member.name} coordinates “${group.name}” now.`
                                  : `${member.name} no longer coordinates “${group.name}”.`,
                              })
                            }}
                            className="size-4 accent-ink"
                          />
                          coordinates
                        </label>
                      ) : (
                        <>
                          <Button look="link" onClick={() => setCorrecting(member.personId)}>
                            Correct
                          </Button>
                          {member.invitedAt && (
                            <Button
                              look="link"
                              onClick={() =>
                                change.mutate({
                                  act: (set) => inviteMember(group.id, member.personId, set),
                                  sentence: `Sent to ${member.address} again. The link sent before leads nowhere now.`,
                                  isFinal: true,
                                })
                              }
                            >
                              Send again
                            </Button>
                          )}
                        </>
                      )}
                      {group.hasGuardians && (
                        <Button look="link" onClick={() => setGuarding(member.personId)}>
                          Guardians<span className="sr-only"> of {member.name}</span>
                        </Button>
                      )}
                      <Button look="link" onClick={() => setEnding(member)}>
                        {member.personId === me.id ? 'Leave' : 'Take out'}
                      </Button>
                    </>
                  ) : (
                    <>
                      {member.coordinates && <span className="text-[13px]">coordinates</span>}
                      {member.personId === me.id && (
                        <Button look="link" onClick={() => setEnding(member)}>
                          Leave
                        </Button>
                      )}
                    </>
                  )}
                </div>
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
          isMe={ending.personId === me.id}
          onYes={(leavesEvents) => end(ending, leavesEvents)}
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

/** Who sees and answers for somebody, and who would, once all who are asked say yes. */
function guardiansText({ guardians }: Member): string {
  const listed = (isAsked: boolean) =>
    guardians
      .filter((one) => one.isAsked === isAsked)
      .map((one) => one.name)
      .join(' and ')
  const [now, asked] = [listed(false), listed(true)]
  return [
    now && `; ${now} ${now.includes(' and ') ? 'see and answer' : 'sees and answers'} for them`,
    asked && `; asked whether ${asked} may see and answer for them`,
  ]
    .filter(Boolean)
    .join('')
}

/** Where somebody stands: with an account, invited, or a name alone. */
function stateOf(member: Member, isKept: boolean): string {
  if (member.hasAccount) return member.address ?? 'has an account'
  if (!isKept) return 'without an account'
  if (!member.address) return 'a name without an account'
  return member.invitedAt
    ? `${member.address}, invited ${momentText(member.invitedAt)}, not here yet`
    : `${member.address}, not invited`
}
