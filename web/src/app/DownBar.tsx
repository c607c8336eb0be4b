import { useEffect, useState } from 'react'
import { momentText } from '../reader/dates'
import { useDownSince } from './connection'

/** A line that comes back within this was never away for anybody. */
const patienceMs = 1_500

/** How long it is said that the connection is there again. */
const shownMs = 6_000

/** Says by itself that the server does not answer, and when it does again; nothing of the page goes meanwhile. */
export function DownBar() {
  const since = useDownSince()
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
            ? `Mortar has not answered since ${momentText(new Date(since).toISOString())}. What you see is of then; what you write stays here. It goes on by itself.`
            : 'Mortar answers again.'}
        </p>
      )}
    </div>
  )
}
