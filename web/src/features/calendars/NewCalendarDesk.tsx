import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import type { Schema } from '../../api/client'
import type { Layer } from '../../model/bricks'
import { writeCalendar } from '../../model/calendarQueries'
import { keepLastCalendar } from '../../model/makeIn'
import { Desk } from '../../ui/Desk'
import { freeLook, hues } from '../../ui/looks'
import { marks } from '../../ui/MarkSign'
import { newSet, useActs } from '../../undo/acts'
import { CalendarForm, type CalendarSettings } from './CalendarForm'

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
  return (
    <Desk title={`New calendar in ${group.name}`} onClose={onClose}>
      <CalendarForm
        start={start}
        isNew
        groupName={group.name}
        defaultOf={(purpose) => ({ groupDefault: group.defaults[purpose] })}
        onSave={async (settings) => {
          const set = newSet()
          await writeCalendar(calendarId, null, settings, set)
          acts.done(`Made the calendar “${settings.name.trim()}”.`, set)
          keepLastCalendar({ groupId: group.id, calendarId })
          await queries.invalidateQueries({ queryKey: ['shelf'] })
          onMade(calendarId)
        }}
      />
    </Desk>
  )
}
