import type { Query, QueryClient } from '@tanstack/react-query'
import { answeredAt } from '../api/client'
import { askAgainFor, isLeftAlone } from '../api/leftAlone'
import { wallKeys } from '../api/topics'

/** How many milliseconds at least lie between asking one thing twice, while others go on changing it: what is computed of the wall takes longer. */
const pace = { read: 500, computed: 2_500 } as const

const computed = new Set<string>(wallKeys.filter((key) => key !== 'wall'))

/** Up to how many milliseconds a screen waits by chance, so that not all screens ask in the same moment. */
const chance = 200

/**
 * Has questions asked anew when somebody else changed their answers: in turn, never while the last asking of one is under
 * way, and once more after it for all that was heard meanwhile.
 */
export function freshener(queries: QueryClient, random: () => number = Math.random) {
  /** The questions to ask anew, each with the acts of this page alone that changed its answer; `null` where others did. */
  const stale = new Map<string, ReadonlySet<string> | null>()
  /** When each question was last begun to be asked. */
  const begun = new WeakMap<Query, number>()
  const watch = queries.getQueryCache().subscribe((event) => {
    if (event.type === 'updated' && event.action.type === 'fetch') begun.set(event.query, performance.now())
    if (event.type === 'observerRemoved' && event.query.getObserversCount() === 0) askAgainFor(event.query)
  })
  const asked = new Map<string, number>()
  let timer: ReturnType<typeof setTimeout> | null = null
  /** For whose turn the timer is set. */
  let turn = Number.POSITIVE_INFINITY
  let isAsking = false

  const due = (key: string) =>
    (asked.get(key) ?? Number.NEGATIVE_INFINITY) + (computed.has(key) ? pace.computed : pace.read)

  const schedule = () => {
    const now = performance.now()
    const first = Math.min(
      ...[...stale].map(([key, acts]) => Math.max(due(key), isOnTheWay(acts) ? now + chance : 0)),
    )
    if (isAsking || first >= turn) return
    if (timer !== null) clearTimeout(timer)
    turn = first
    const wait = Math.max(0, first - now) + random() * chance
    timer = setTimeout(() => {
      timer = null
      turn = Number.POSITIVE_INFINITY
      void ask()
    }, wait)
  }

  const ask = async () => {
    const now = performance.now()
    const turns = [...stale].filter(([key, acts]) => due(key) <= now && !isOnTheWay(acts))
    for (const [key] of turns) {
      stale.delete(key)
      asked.set(key, now)
    }
    isAsking = true
    await Promise.allSettled(
      turns.map(([key, acts]) =>
        askAfter(queries, key, (query) => isBefore(begun.get(query), acts) && !isLeftAlone(query)),
      ),
    )
    isAsking = false
    schedule()
  }

  return {
    /**
     * Something changed the answers to these questions: by acts of one's own where they are named, after whose answer this
     * page may have asked already.
     */
    heard(keys: readonly string[], sets: readonly string[] = []) {
      const isOwn = sets.length > 0 && sets.every((set) => answeredAt(set) !== null)
      for (const key of keys) {
        const known = stale.get(key)
        stale.set(key, isOwn && known !== null ? new Set([...(known ?? []), ...sets]) : null)
      }
      schedule()
    },
    stop() {
      watch()
      if (timer !== null) clearTimeout(timer)
      timer = null
      turn = Number.POSITIVE_INFINITY
      stale.clear()
    },
  }
}

/** Whether an act of this page is not answered yet: what it does once it is, is not asked before. */
const isOnTheWay = (acts: ReadonlySet<string> | null): boolean =>
  acts !== null && [...acts].some((set) => answeredAt(set) === Number.POSITIVE_INFINITY)

/**
 * Whether a question was begun to be asked before what was heard was there to be read: an act of this page is once it is
 * answered; of those of others that is not known.
 */
const isBefore = (begun: number | undefined, acts: ReadonlySet<string> | null): boolean =>
  acts === null || begun === undefined || [...acts].some((set) => begun < (answeredAt(set) ?? begun + 1))

/** Asks once what is under way has come: it may have been read before the change. */
async function askAfter(queries: QueryClient, key: string, isTooEarly: (query: Query) => boolean) {
  const underWay = queries
    .getQueryCache()
    .findAll({ queryKey: [key], type: 'active', fetchStatus: 'fetching' })
  await Promise.allSettled(underWay.map((query) => query.promise))
  await queries.invalidateQueries({ queryKey: [key], predicate: isTooEarly }, { cancelRefetch: false })
}
