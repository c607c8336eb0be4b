import { HubConnectionBuilder, LogLevel } from '@microsoft/signalr'
import type { QueryClient } from '@tanstack/react-query'
import { answeredAt } from '../api/client'
import { isTopic, topics } from '../api/topics'
import { freshener } from './freshen'

/** Opens the live line: notices say that something changed, and what is shown is fetched anew. Returns how to close it. */
export function openLiveLine(queries: QueryClient): () => void {
  const line = new HubConnectionBuilder()
    .withUrl('/live')
    .withAutomaticReconnect({
      nextRetryDelayInMilliseconds: ({ previousRetryCount }) =>
        Math.min(500 * 2 ** previousRetryCount, 10_000),
    })
    .configureLogging(LogLevel.None)
    .build()
  const fresh = freshener(queries)
  line.on('changed', (topic: string, _calendar: string | null, sets: readonly string[]) => {
    // A server that is newer than this page may tell of more than it knows.
    if (!isTopic(topic)) return
    fresh.heard(topics[topic], sets)
    if (topic === 'wall' && (sets.length === 0 || sets.some((set) => answeredAt(set) === null)))
      announce('Somebody changed the wall.')
  })
  // While the line was down changes may have been missed.
  line.onreconnected(() => void queries.invalidateQueries())
  const setOpen = (open: boolean) => document.documentElement.toggleAttribute('data-live', open)
  line.onclose(() => setOpen(false))
  line.onreconnecting(() => setOpen(false))
  const started = line.start().then(
    () => {
      setOpen(true)
      // What changed after the page was fetched and before the line was open was told to nobody.
      for (const key of ['shelf', 'wall', 'inbox']) void queries.invalidateQueries({ queryKey: [key] })
    },
    () => setOpen(false),
  )
  return () => {
    fresh.stop()
    void started.then(() => line.stop())
  }
}

/** For whom the wall is read aloud, politely. */
function announce(sentence: string) {
  const news = document.querySelector('[data-news]')
  if (!news) return
  news.textContent = ''
  requestAnimationFrame(() => {
    news.textContent = sentence
  })
}
