import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import type { Schema } from '../../api/client'
import type { Layer } from '../../model/bricks'
import { writeCalendar } from '../../model/calendarQueries'
import { keepLastCalendar } from '../../model/makeIn'
import { Button } from '../../ui/Button'
import { Desk } from '../../ui/Desk'
import { freeLook, hues } from '../../ui/looks'
import { marks } from '../../ui/MarkSign'
import { newSet, useActs } from '../../undo/acts'
import { CalendarForm, type CalendarSettings } from './CalendarForm'
import { FromWeb } from './FromWeb'

interface NewCalendarDeskProps {
  group: Schema['GroupsGroupBody']
  layers: readonly Layer[]
  onMade: (calendarId: string) => void
  onClose: () => void
}

/** Makes a calendar in a group, with a look that is not taken yet. */
export function NewCalendarDesk({ group, layers, onMade, onClose }: NewCalendarDeskProps) {
  const queries = useQueryClient()
  const acts = useActs()
  const [calendarId] = useState(() => crypto.randomUUID())
  const [from, setFrom] = useState<'us' | 'web'>('us')
  const start = {
    groupId: group.id,
    name: '',
    description: '',
    hue:
      freeLook(
        hues.map((hue) => hue.value),
        layers.map((layer) => layer.hue),
      ) ?? 'iron',
    mark:
      freeLook(
        marks,
        layers.map((layer) => layer.mark),
      ) ?? 'cone',
    zone: group.zone,
    purpose: 'events',
    groupDefault: group.defaults.events,
    takes: 'named',
    person: null,
    oneAtATime: false,
    agreed: false,
    kinds: [],
  } satisfies CalendarSettings
  const made = async (name: string, set?: string) => {
    acts.done(`Made the calendar “${name.trim()}”.`, set)
    await queries.invalidateQueries({ queryKey: ['shelf'] })
    onMade(calendarId)
  }
  return (
    <Desk title={`New calendar in ${group.name}`} onClose={onClose}>
      <fieldset className="mb-4 flex gap-2">
        <legend className="sr-only">Where its events come from</legend>
        <Button pressed={from === 'us'} onClick={() => setFrom('us')}>
          Made here
        </Button>
        <Button pressed={from === 'web'} onClick={() => setFrom('web')}>
          From the web
        </Button>
      </fieldset>
      {from === 'web' ? (
        <FromWeb
          start={start}
          group={group}
          calendarId={calendarId}
          onMade={async (name) => {
            await queries.invalidateQueries({ queryKey: ['groups'] })
            await made(name)
          }}
        />
      ) : (
        <CalendarForm
          start={start}
          isNew
          groupName={group.name}
          defaultOf={(purpose) => ({ groupDefault: group.defaults[purpose] })}
          onSave={async (settings) => {
            const set = newSet()
            await writeCalendar(calendarId, null, settings, set)
            keepLastCalendar({ groupId: group.id, calendarId })
            await made(settings.name, set)
          }}
        />
      )}
    </Desk>
  )
}
