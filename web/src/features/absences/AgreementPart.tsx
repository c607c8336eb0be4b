import { useQuery } from '@tanstack/react-query'
import { inboxQuery } from '../../model/inboxQuery'
import { AgreeForm } from './AgreeForm'

interface AgreementPartProps {
  eventId: string
  version: number
  /** Whether those who coordinate its calendar agree to what is entered. */
  agreed: boolean
  /** Whose absence it is. */
  who: string
  onDone: () => void
}

/** On an absence that waits for the reader: their yes or no. */
export function AgreementPart({ eventId, version, agreed, who, onDone }: AgreementPartProps) {
  const inbox = useQuery({ ...inboxQuery, enabled: agreed })
  if (!(inbox.data?.absences ?? []).some((one) => one.event.eventId === eventId)) return null
  return (
    <section aria-label="Agreement" className="mb-4 grid gap-2 border-b border-cement-300 pb-4">
      <h3 className="text-base">Waits for you to agree</h3>
      <AgreeForm eventId={eventId} version={version} who={who} onDone={onDone} />
    </section>
  )
}
