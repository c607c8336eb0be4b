/** What one's own changes made of an event: the versions they went through, and the one they led to. */
interface Steps {
  through: readonly number[]
  to: number
}

interface Versioned {
  eventId: string
  version: number | null
}

/** The last change to an event: what it made, and when it was answered; null while it is on its way. */
interface Last {
  made: Promise<Steps | null>
  answeredAt: number | null
}

/** For how many milliseconds a hand may still hold what was there before one's own change was answered. */
const heldFor = 5_000

const changes = new Map<string, Last>()

/**
 * Sends changes to one event one after the other. Whoever moves a brick and at once moves it on has seen their own first
 * change, not somebody else's: the second is based on what the first one made, also where the answer to that came while
 * the brick was in the hand. A version that anybody else made in between stays a conflict.
 */
export function inTurn<Wish extends Versioned, Answer extends { eventId: string; version: number }>(
  wish: Wish,
  send: (wish: Wish) => Promise<Answer>,
): Promise<Answer> {
  for (const [eventId, { answeredAt }] of changes)
    if (answeredAt !== null && performance.now() - answeredAt > heldFor) changes.delete(eventId)
  const before = changes.get(wish.eventId)?.made ?? Promise.resolve(null)
  const seen = wish.version ?? 0
  let through: readonly number[] = [seen]
  const sent = before.then((steps) => {
    if (!steps?.through.includes(seen)) return send(wish)
    through = [...steps.through, steps.to]
    return send({ ...wish, version: steps.to })
  })
  const made = sent.then(
    (answer) => (answer.eventId === wish.eventId ? { through, to: answer.version } : null),
    () => before,
  )
  const last: Last = { made, answeredAt: null }
  changes.set(wish.eventId, last)
  void made.then(() => {
    last.answeredAt = performance.now()
  })
  return sent
}
