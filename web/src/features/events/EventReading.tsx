import { useQuery } from '@tanstack/react-query'
import type { ComponentProps } from 'react'
import { sentenceOf } from '../../api/problem'
import { fromEventKey, type Layer } from '../../model/bricks'
import { Desk } from '../../ui/Desk'
import { EventPage } from './EventPage'
import { eventQuery } from './eventQueries'

interface EventReadingProps extends Pick<ComponentProps<typeof EventPage>, 'names' | 'onEdit' | 'onClose'> {
  eventKey: string
  layers: readonly Layer[]
}

/** The desk of an event that is read, asked for as it is now. */
export function EventReading({ eventKey, layers, names, onEdit, onClose }: EventReadingProps) {
  const { eventId, only } = fromEventKey(eventKey)
  const event = useQuery(eventQuery(eventId, only))
  const layer = layers.find((one) => one.calendarId === event.data?.calendarId)
  if (event.isError)
    return (
      <Desk title="Not there" onClose={onClose}>
        <p>{sentenceOf(event.error)}</p>
      </Desk>
    )
  return event.data && layer ? (
    <EventPage
      brick={event.data}
      layer={layer}
      names={names}
      onEdit={event.data.mayChange ? onEdit : undefined}
      onClose={onClose}
    />
  ) : (
    <Desk title="" onClose={onClose}>
      {null}
    </Desk>
  )
}
