import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import type { Schema } from '../../api/client'
import type { Going } from '../../model/groupQueries'
import { endingQuery } from '../../model/membershipQueries'
import { Choice } from '../../ui/Choice'
import { Question } from '../../ui/Question'

interface TakeOutProps {
  group: Schema['GroupsGroupBody']
  member: Schema['GroupsMemberBody']
  members: readonly Schema['GroupsMemberBody'][]
  me: string
  onYes: (going: Going) => void
  onClose: () => void
}

/** Whether somebody is to leave a group, with what goes, what stays, what is handed on, and what could be left to them. */
export function TakeOut({ group, member, members, me, onYes, onClose }: TakeOutProps) {
  const isMe = member.personId === me
  const [leavesEvents, setLeavesEvents] = useState(false)
  const [next, setNext] = useState(isMe ? '' : me)
  const ending = useQuery({
    ...endingQuery(group.id, member.personId),
    enabled: (group.coordinates || isMe) && member.hasAccount,
  })
  const given = ending.data?.calendars ?? []
  const alone = ending.data?.alone ?? []
  const count = given.reduce((sum, one) => sum + one.events, 0)
  const events = count === 1 ? 'one event' : `${count} events`
  const keepers = members.filter((one) => one.hasAccount && one.personId !== member.personId)
  return (
    <Question
      title={isMe ? `Leave “${group.name}”?` : `Take ${member.name} out of “${group.name}”?`}
      yes={isMe ? 'Leave' : 'Take out'}
      no="Stay"
      isReady={!ending.isLoading && (alone.length === 0 || next !== '')}
      onYes={() => onYes({ leavesEvents, handOnTo: alone.length > 0 ? next : undefined })}
      onClose={onClose}
    >
      <p>
        What every member has goes at once, and so do single events that are given to {isMe ? 'you' : 'them'}.
        Access that was given by name stays, and so does what {isMe ? 'you' : 'they'} added.
      </p>
      {alone.length > 0 && (
        <div className="mt-3">
          <p className="mb-2">
            {alone.map((one) => `“${one}”`).join(', ')} {alone.length === 1 ? 'has' : 'have'} nobody else in
            the group to coordinate {alone.length === 1 ? 'it' : 'them'}.
          </p>
          <Choice
            label="Coordinated from now on by"
            value={next}
            onChange={setNext}
            options={[
              ...(next === '' ? [{ value: '', label: 'Choose somebody' }] : []),
              ...keepers.map((one) => ({
                value: one.personId,
                label: one.personId === me ? `${one.name} (you)` : one.name,
              })),
            ]}
          />
        </div>
      )}
      {count > 0 && (
        <label className="mt-3 flex items-start gap-2">
          <input
            type="checkbox"
            checked={leavesEvents}
            onChange={(event) => setLeavesEvents(event.target.checked)}
            className="mt-1 size-4 accent-ink"
          />
          <span>
            Leave {member.name} {events} of {given.map((one) => `“${one.calendarName}”`).join(' and ')} that{' '}
            {count === 1 ? 'is' : 'are'} given to them. The table of access says so.
          </span>
        </label>
      )}
    </Question>
  )
}
