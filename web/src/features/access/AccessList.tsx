import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import type { Schema } from '../../api/client'
import { sentenceOf } from '../../api/problem'
import {
  accessQueries,
  endAccess,
  endGroupAccess,
  sendAgain,
  setGroupRole,
  setRole,
  withdraw,
} from '../../model/accessQueries'
import type { Layer } from '../../model/bricks'
import { ladder, lowerSteps, type Role, reaches, roleName, stepsOn } from '../../model/ladder'
import { longDayText, momentText } from '../../reader/dates'
import { useReader } from '../../reader/person'
import { Button } from '../../ui/Button'
import { Note } from '../../ui/Note'
import { Question } from '../../ui/Question'
import { useChange } from '../../undo/useChange'
import { LinksPart } from '../links'
import { everybodyText, givenText, lossText } from './stepWords'

/** What shows who has access. */
const changed = ['access'] as const

type Person = Schema['ListAccessPersonBody']

/** Who has access and who is invited; each changed on the spot. */
export function AccessList({ layer }: { layer: Layer }) {
  const { person: me } = useReader()
  const access = useQuery(accessQueries.list(layer.calendarId))
  const [ending, setEnding] = useState<Person | null>(null)
  const change = useChange(changed)
  if (access.isError) return <p className="text-clash">{sentenceOf(access.error)}</p>
  if (!access.data) return null

  const { people, groups, invitations, links, groupDefault, members } = access.data
  return (
    <>
      <ul className="divide-y divide-cement-200 border-y border-cement-200">
        {groupDefault !== 'none' && (
          <li className="py-2">
            Every member of {layer.groupName} ({members}): {roleName(groupDefault)}
          </li>
        )}
        {groups.map((group) => (
          <li key={group.groupId} className="grid grid-cols-[1fr_auto] items-center gap-x-2 py-2">
            <div className="min-w-0">
              <p className="written font-bold">Everybody in {group.name}</p>
              <Note>
                {group.members} now
                {group.lastDay && `, until ${longDayText(group.lastDay)}`}
              </Note>
            </div>
            <div className="grid justify-items-end gap-1">
              <StepSelect
                label={`Step of everybody in ${group.name}`}
                role={group.role}
                steps={stepsOn(lowerSteps, layer)}
                onRole={(role) => changeGroupRole(group, role)}
              />
              <Button look="link" onClick={() => endGroup(group)}>
                <span className="text-[12px]">End access</span>
              </Button>
            </div>
          </li>
        ))}
        {people.map((person) => (
          <li key={person.personId} className="grid grid-cols-[1fr_auto] items-center gap-x-2 py-2">
            <div className="min-w-0">
              <p className="written font-bold">
                {person.name}
                {person.personId === me.id && ' (you)'}
              </p>
              <p className="truncate text-[12px] text-cement-700">{person.address}</p>
              {person.lastDay && <Note>until {longDayText(person.lastDay)}</Note>}
              {reaches(person.stays, person.role) && (
                <Note>{roleName(person.stays)} comes by another way, and the highest counts</Note>
              )}
            </div>
            <div className="grid justify-items-end gap-1">
              <StepSelect
                label={`Step of ${person.name}`}
                role={person.role}
                steps={stepsOn(ladder, layer)}
                onRole={(role) => changeRole(person, role)}
              />
              <Button look="link" onClick={() => setEnding(person)}>
                <span className="text-[12px]">End access</span>
              </Button>
            </div>
          </li>
        ))}
        {invitations.map((one) => (
          <li key={one.id} className="py-2">
            <p className="written font-bold">{one.name ?? one.address}</p>
            <Note>
              {one.state === 'declined' ? 'declined' : 'invited to'} {roleName(one.role)}, sent{' '}
              {momentText(one.sentAt)}
              {one.lapsed &&
                '; lapsed, since whoever sent it can no longer give this. Send it again yourself.'}
            </Note>
            {one.state === 'waiting' && (
              <div className="mt-1 flex gap-3 text-[12px]">
                <Button look="link" onClick={() => again(one.id, one.address)}>
                  Send again
                </Button>
                <Button look="link" onClick={() => takeBack(one.id, one.address)}>
                  Take back
                </Button>
              </div>
            )}
          </li>
        ))}
      </ul>
      <LinksPart layer={layer} links={links} />
      {ending && (
        <Question
          title={`End the access of ${ending.name}?`}
          yes="End access"
          onYes={() => end(ending)}
          onClose={() => setEnding(null)}
        >
          {lossText(ending.name, layer.name, ending.stays)} What they added to it stays.
        </Question>
      )}
    </>
  )

  function changeRole(person: Person, role: Role) {
    change.mutate({
      act: (set) => setRole(layer.calendarId, person.personId, role, person.lastDay, set),
      sentence: givenText(person.name, layer.name, role, person.stays),
    })
  }

  function changeGroupRole({ groupId, name, lastDay }: Schema['ListAccessGroupBody'], role: Role) {
    change.mutate({
      act: (set) => setGroupRole(layer.calendarId, groupId, role, lastDay, set),
      sentence: everybodyText(name, layer.name, role),
    })
  }

  function end(person: Person) {
    setEnding(null)
    change.mutate({
      act: (set) => endAccess(layer.calendarId, person.personId, set),
      sentence: `Ended the access of ${person.name} to “${layer.name}”.`,
    })
  }

  function endGroup({ groupId, name }: Schema['ListAccessGroupBody']) {
    change.mutate({
      act: (set) => endGroupAccess(layer.calendarId, groupId, set),
      sentence: `Ended what everybody in ${name} had on “${layer.name}”.`,
    })
  }

  function again(invitationId: string, address: string) {
    change.mutate({
      act: (set) => sendAgain(layer.calendarId, invitationId, set),
      sentence: `Sent to ${address} again. The link sent before leads nowhere now.`,
      isFinal: true,
    })
  }

  function takeBack(invitationId: string, address: string) {
    change.mutate({
      act: (set) => withdraw(layer.calendarId, invitationId, set),
      sentence: `Took back the invitation to ${address}.`,
    })
  }
}

/** A step that is changed where it stands. */
function StepSelect({
  label,
  role,
  steps,
  onRole,
}: {
  label: string
  role: Role
  steps: typeof ladder
  onRole: (role: Role) => void
}) {
  return (
    <select
      aria-label={label}
      value={role}
      onChange={(event) => {
        const next = steps.find((step) => step.value === event.target.value)?.value
        if (next) onRole(next)
      }}
      className="rounded-control border border-cement-500 bg-surface px-1.5 py-1"
    >
      {steps.map((step) => (
        <option key={step.value} value={step.value}>
          {step.label}
        </option>
      ))}
    </select>
  )
}
