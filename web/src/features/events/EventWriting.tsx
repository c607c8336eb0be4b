import type { ComponentProps } from 'react'
import type { Layer } from '../../model/bricks'
import type { EventDraft } from '../../model/eventDraft'
import { Desk } from '../../ui/Desk'
import { EventDesk } from './EventDesk'
import { EventPage } from './EventPage'
import { type Sight, typedIn } from './useSight'

interface EventWritingProps extends Omit<ComponentProps<typeof EventDesk>, 'layers'> {
  layers: readonly Layer[]
  sight: Sight
  names: ReadonlyMap<string, string>
}

/** The desk of an event that is written: what may be seen of it at this moment, and what was typed in any case. */
export function EventWriting({ sight, names, layers, ...desk }: EventWritingProps) {
  if (sight.kind === 'writes') {
    const { calendarId } = sight.form
    return (
      <EventDesk
        {...desk}
        layers={layers.filter((layer) => layer.may.add || layer.calendarId === calendarId)}
      />
    )
  }
  const layer =
    sight.kind === 'reads' ? layers.find((one) => one.calendarId === sight.event.calendarId) : undefined
  return sight.kind === 'reads' && layer ? (
    <EventPage brick={sight.event} layer={layer} names={names} onEdit={undefined} onClose={desk.onClose}>
      <p role="alert" className="mb-4 border-l-4 border-clash pl-3">
        Your step on “{layer.name}” was lowered, so this can be read and not changed any more.
      </p>
      <Typed form={desk.form} />
    </EventPage>
  ) : (
    <Desk title="Not there" onClose={desk.onClose}>
      <p role="alert" className="mb-4">
        It is no longer shared with you, or was deleted. Ask its coordinator if you expected it.
      </p>
      <Typed form={desk.form} />
    </Desk>
  )
}

/** Stays to be copied until the desk is closed. */
function Typed({ form }: { form: EventDraft }) {
  const typed = typedIn(form)
  if (typed.length === 0) return null
  return (
    <section aria-label="What you wrote" className="mb-4 border-b border-cement-300 pb-4">
      <h3 className="text-base">What you wrote</h3>
      <p className="mb-2 text-[12px] text-cement-700">
        It was not saved. It stays here until you close this.
      </p>
      <dl className="grid gap-3">
        {typed.map(([field, text]) => (
          <div key={field}>
            <dt className="text-[12px] text-cement-700">{field}</dt>
            <dd className="written whitespace-pre-line">{text}</dd>
          </div>
        ))}
      </dl>
    </section>
  )
}
