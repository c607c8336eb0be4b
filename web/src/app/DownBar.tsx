import { useEffect, useState } from 'react'
import { clockText } from '../reader/dates'
import { useReader } from '../reader/person'
import { useDownSince } from './connection'

/** A line that comes back within this was never away for anybody. */
const patienceMs = 1_500

/** How long it is said that the connection is there again. */
const shownMs = 6_000

/** A moment as the reader's clock has it. */
const localOf = (epoch: number, zone: string) =>
  Temporal.Instant.fromEpochMilliseconds(epoch).toZonedDateTimeISO(zone).toPlainDateTime().toString()

/** Says by itself that the server does not answer, and when it does again; nothing of the page goes meanwhile. */
export function DownBar() {
  const since = useDownSince()
  const { person } = useReader()
  const [said, setSaid] = useState<'nothing' | 'down' | 'again'>('nothing')
  useEffect(() => {
    if (since !== null) {
      const timer = setTimeout(() => setSaid('down'), patienceMs)
      return () => clearTimeout(timer)
    }
    setSaid((before) => (before === 'down' ? 'again' : 'nothing'))
    const timer = setTimeout(() => setSaid('nothing'), shownMs)
    return () => clearTimeout(timer)
  }, [since])
  return (
    <div
      role="status"
      className="pointer-events-none fixed inset-x-3 top-13 z-35 mx-auto w-fit max-w-[calc(100vw-1.5rem)]"
    >
      {said !== 'nothing' && (
        <p className="bg-ink px-3 py-1.5 text-on-ink shadow-lg">
          {said === 'down' && since !== null
            ? `Mortar has not answered since ${clockText(localOf(since, person.zone))}. What you see is of then; what you write stays here. It goes on by itself.`
            : 'Mortar answers again.'}
        </p>
      )}
    </div>
  )
}
