import { HubConnectionBuilder, LogLevel } from '@microsoft/signalr'
import type { QueryClient } from '@tanstack/react-query'
import { answeredAt } from '../api/client'
import { wallKeys } from '../model/wallKeys'
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
  const refetch = (...keys: string[]) => {
    for (const key of keys) void queries.invalidateQueries({ queryKey: [key] })
  }
  const fresh = freshener(queries)
  line.on('calendarChanged', (_calendar: string, sets: readonly string[]) => {
    fresh.heard(wallKeys, sets)
    if (sets.length === 0 || sets.some((set) => answeredAt(set) === null))
      announce('Somebody changed the wall.')
  })
  line.on('shelfChanged', () => refetch('shelf', 'groups', 'sets', 'guardianships', ...wallKeys))
  line.on('accessChanged', () => refetch('access'))
  line.on('inboxChanged', () => refetch('inbox', 'proposals'))
  line.on('reminded', () => refetch('reminders'))
  // While the line was down changes may have been missed.
  line.onreconnected(() => void queries.invalidateQueries())
  const setOpen = (open: boolean) => document.documentElement.toggleAttribute('data-live', open)
  line.onclose(() => setOpen(false))
  line.onreconnecting(() => setOpen(false))
  const started = line.start().then(
    () => {
      setOpen(true)
      // What changed after the page was fetched and before the line was open was told to nobody.
      refetch('shelf', 'wall', 'inbox')
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
