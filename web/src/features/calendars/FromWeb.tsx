import { useState } from 'react'
import type { Schema } from '../../api/client'
import { writeGroup } from '../../model/groupQueries'
import { settingsOf } from '../../model/groupSettings'
import { Button } from '../../ui/Button'
import { Check } from '../../ui/Check'
import { Note } from '../../ui/Note'
import { newSet } from '../../undo/acts'
import { FileContents } from '../imports'
import { everyText, LookAtWeb, makeWebCalendar, type WebLook } from '../webcalendars'
import { CalendarForm, type CalendarSettings } from './CalendarForm'

interface FromWebProps {
  start: CalendarSettings
  group: Schema['GroupsGroupBody']
  calendarId: string
  onMade: (name: string) => Promise<void>
}

/** A calendar from the web: its address, what is there, and then how it lies here and for whom. */
export function FromWeb({ start, group, calendarId, onMade }: FromWebProps) {
  const [seen, setSeen] = useState<{ address: string; look: WebLook } | null>(null)
  const [areDaysOff, setDaysOff] = useState(false)
  if (!seen) return <LookAtWeb onSeen={(address, look) => setSeen({ address, look })} />
  const { address, look } = seen
  return (
    <div className="grid gap-4">
      <FileContents read={look} />
      <Note>Fetched {everyText(look.everyMinutes)}, by itself. What is in it is only read here.</Note>
      <div>
        <Button look="link" onClick={() => setSeen(null)}>
          Another address
        </Button>
      </div>
      {group.coordinates && (
        <Check
          label={`Its whole days are days off for all of ${group.name}`}
          hint="Cover, working days and gaps know of them."
          checked={areDaysOff}
          onChange={setDaysOff}
        />
      )}
      <CalendarForm
        start={{
          ...start,
          name: look.name ?? '',
          description: look.description ?? '',
          groupDefault: 'none',
          takes: 'nobody',
        }}
        isNew
        isFromWeb
        groupName={group.name}
        onSave={async (settings) => {
          const set = newSet()
          const { groupId, name, description, hue, mark, zone, groupDefault, takes, person } = settings
          await makeWebCalendar(
            calendarId,
            { address, groupId, name, description, hue, mark, zone, groupDefault, takes, person },
            set,
          )
          if (areDaysOff)
            await writeGroup(group.id, group.version, { ...settingsOf(group), daysOff: calendarId }, set)
          await onMade(name)
        }}
      />
    </div>
  )
}
