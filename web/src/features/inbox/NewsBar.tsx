import { useQuery } from '@tanstack/react-query'
import { Inbox, X } from 'lucide-react'
import { useEffect, useRef, useState } from 'react'
import { useLocation } from 'react-router'
import type { Schema } from '../../api/client'
import { eventKey } from '../../model/bricks'
import { inboxQuery } from '../../model/inboxQuery'
import { TextLink } from '../../ui/TextLink'
import { arrived } from './arrived'

type News = Schema['InboxNewsBody']

/** For how many milliseconds news lie over the screen by themselves. */
const shownFor = 15_000

const most = 3

/** What arrives while a screen is open and one wants to be told there. What was there before is in the inbox. */
export function NewsBar() {
  const onScreen = useQuery(inboxQuery).data?.onScreen
  const known = useRef<ReadonlySet<string>>(null)
  const [shown, setShown] = useState<readonly News[]>([])
  const [isHeld, setHeld] = useState(false)
  const isInbox = useLocation().pathname === '/inbox'

  useEffect(() => {
    if (!onScreen) return
    const news = arrived(known.current, onScreen)
    known.current = new Set([...(known.current ?? []), ...onScreen.map((one) => one.key)])
    // What was answered or taken back meanwhile is no news any more.
    setShown((before) => [
      ...news,
      ...before.filter((one) => onScreen.some((other) => other.key === one.key)),
    ])
  }, [onScreen])

  useEffect(() => {
    if (shown.length === 0 || isHeld) return
    const timer = setTimeout(() => setShown([]), shownFor)
    return () => clearTimeout(timer)
  }, [shown, isHeld])

  const news = isInbox ? [] : shown
  return (
    <section
      aria-label="News"
      aria-live="polite"
      className="pointer-events-none fixed inset-x-3 top-15 z-35 mx-auto grid max-w-md gap-2"
    >
      {news.length > 0 && (
        // biome-ignore lint/a11y/noStaticElementInteractions: only keeps it there while it is read
        <div
          className="pointer-events-auto flex items-start gap-3 border-2 border-ink bg-surface p-3 shadow-lg"
          onMouseEnter={() => setHeld(true)}
          onMouseLeave={() => setHeld(false)}
          onFocus={() => setHeld(true)}
          onBlur={() => setHeld(false)}
        >
          <Inbox size={16} aria-hidden="true" className="mt-0.5 shrink-0" />
          <div className="grid min-w-0 flex-1 gap-1">
            {news.slice(0, most).map((one) => (
              <p key={one.key} className="written">
                {one.sentence}{' '}
                {one.eventId && (
                  <TextLink to={`/week?desk=event~${eventKey(one.eventId, null)}`}>Look at it</TextLink>
                )}
              </p>
            ))}
            <p>
              <TextLink to="/inbox">
                {news.length > most ? `${news.length - most} more in the inbox` : 'Open the inbox'}
              </TextLink>
            </p>
          </div>
          <button type="button" aria-label="Put the news away" onClick={() => setShown([])}>
            <X size={16} aria-hidden="true" />
          </button>
        </div>
      )}
    </section>
  )
}
