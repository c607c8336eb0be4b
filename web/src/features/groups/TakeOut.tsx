import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import type { Schema } from '../../api/client'
import { endingQuery } from '../../model/membershipQueries'
import { Question } from '../../ui/Question'

interface TakeOutProps {
  group: Schema['GroupsGroupBody']
  member: Schema['GroupsMemberBody']
  isMe: boolean
  onYes: (leavesEvents: boolean) => void
  onClose: () => void
}

/** Whether somebody is to leave a group, with what goes, what stays, and what could be left to them. */
export function TakeOut({ group, member, isMe, onYes, onClose }: TakeOutProps) {
  const [leavesEvents, setLeavesEvents] = useState(false)
  const ending = useQuery({
    ...endingQuery(group.id, member.personId),
    enabled: group.coordinates && !isMe && member.hasAccount,
  })
  const given = ending.data?.calendars ?? []
  const count = given.reduce((sum, one) => sum + one.events, 0)
  const events = count === 1 ? 'one event' : `${count} events`
  return (
    <Question
      title={isMe ? `Leave “${group.name}”?` : `Take ${member.name} out of “${group.name}”?`}
      yes={isMe ? 'Leave' : 'Take out'}
      no="Stay"
      onYes={() => onYes(leavesEvents)}
      onClose={onClose}
    >
      <p>
        What every member has goes at once, and so do single events that are given to {isMe ? 'you' : 'them'}.
        Access that was given by name stays, and so does what {isMe ? 'you' : 'they'} added.
      </p>
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
