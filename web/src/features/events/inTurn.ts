/** What one's own change did to an event: the version it was based on, and the one it made. */
interface Step {
  from: number
  to: number
}

interface Versioned {
  eventId: string
  version: number | null
}

const waiting = new Map<string, Promise<Step | null>>()

/**
 * Sends changes to one event one after the other. Whoever moves a brick and at once moves it on has seen their own first
 * change, not somebody else's: the second is based on what the first one made. A version that anybody else made in
 * between stays a conflict.
 */
export function inTurn<Wish extends Versioned, Answer extends { eventId: string; version: number }>(
  wish: Wish,
  send: (wish: Wish) => Promise<Answer>,
): Promise<Answer> {
  const before = waiting.get(wish.eventId) ?? Promise.resolve(null)
  const seen = wish.version ?? 0
  const sent = before.then((step) => send(step?.from === seen ? { ...wish, version: step.to } : wish))
  const made = sent.then(
    (answer) => (answer.eventId === wish.eventId ? { from: seen, to: answer.version } : null),
    () => before,
  )
  waiting.set(wish.eventId, made)
  void made.then(() => {
    if (waiting.get(wish.eventId) === made) waiting.delete(wish.eventId)
  })
  return sent
}
