import { HubConnectionBuilder, HubConnectionState, LogLevel } from '@microsoft/signalr'
import type { QueryClient } from '@tanstack/react-query'
import { answeredAt } from '../api/client'
import { signedInAgain } from '../api/signedOut'
import { isTopic, topics } from '../api/topics'
import { say } from '../ui/say'
import { isConnected } from './connection'
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
      say('Somebody changed the wall.')
  })
  // While the line was down changes may have been missed. Who one is cannot have changed on an open page: it asks for that itself.
  const missed = () => queries.invalidateQueries({ predicate: (query) => query.queryKey[0] !== 'session' })
  line.onreconnected(() => {
    setOpen(true)
    void missed()
  })
  const setOpen = (open: boolean) => {
    document.documentElement.toggleAttribute('data-live', open)
    if (open) isConnected(true)
  }
  line.onreconnecting(() => {
    setOpen(false)
    isConnected(false)
  })
  let isWanted = true
  let isFirst = true
  let started = Promise.resolve()
  let again: ReturnType<typeof setTimeout> | undefined
  /** It is begun until it stands: by itself it only comes back where it stood before. */
  const start = async (): Promise<void> => {
    clearTimeout(again)
    if (!isWanted || line.state !== HubConnectionState.Disconnected) return
    try {
      await line.start()
      if (!isWanted) return
      setOpen(true)
      // What changed after the page was fetched and before the line was open was told to nobody.
      if (isFirst)
        for (const key of ['shelf', 'wall', 'inbox']) void queries.invalidateQueries({ queryKey: [key] })
      else void missed()
    } catch (error) {
      if (!isWanted) return
      setOpen(false)
      // The server answers, and the sign-in has ended.
      if (String(error).includes("Status code '401'")) {
        if (await signedInAgain()) goOn()
        return
      }
      isConnected(false)
      again = setTimeout(() => {
        started = start()
      }, 5_000)
    }
    isFirst = false
  }
  // A device says sooner than any line that it has no network, and that it has it again; a tab that slept asks at once.
  const goOn = () => {
    started = start()
  }
  line.onclose(() => {
    if (!isWanted) return
    setOpen(false)
    // After a little chance: it may have been cut because this very sign-in is being renewed, or for all screens at once.
    again = setTimeout(goOn, 1_000 + 1_000 * Math.random())
  })
  const offline = () => {
    isConnected(false)
    void line.stop()
  }
  goOn()
  window.addEventListener('offline', offline)
  window.addEventListener('online', goOn)
  document.addEventListener('visibilitychange', goOn)
  return () => {
    isWanted = false
    clearTimeout(again)
    window.removeEventListener('offline', offline)
    window.removeEventListener('online', goOn)
    document.removeEventListener('visibilitychange', goOn)
    fresh.stop()
    void started.then(() => line.stop())
  }
}
