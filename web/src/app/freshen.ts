import type { QueryClient } from '@tanstack/react-query'

/** How many milliseconds at least lie between asking one thing twice, while others go on changing it. */
const pace = { wall: 500, others: 2_500 } as const

/** Up to how many milliseconds a screen waits by chance, so that not all screens ask in the same moment. */
const chance = 200

/**
 * Has questions asked anew when somebody else changed their answers: in turn, never while the last asking of one is under
 * way, and once more after it for all that was heard meanwhile.
 */
export function freshener(queries: QueryClient, random: () => number = Math.random) {
  const stale = new Set<string>()
  const asked = new Map<string, number>()
  let timer: ReturnType<typeof setTimeout> | null = null
  /** For whose turn the timer is set. */
  let turn = Number.POSITIVE_INFINITY
  let isAsking = false

  const due = (key: string) =>
    (asked.get(key) ?? Number.NEGATIVE_INFINITY) + (key === 'wall' ? pace.wall : pace.others)

  const schedule = () => {
    const first = Math.min(...[...stale].map(due))
    if (isAsking || first >= turn) return
    if (timer !== null) clearTimeout(timer)
    turn = first
    const wait = Math.max(0, first - performance.now()) + random() * chance
    timer = setTimeout(() => {
      timer = null
      turn = Number.POSITIVE_INFINITY
      void ask()
    }, wait)
  }

  const ask = async () => {
    const now = performance.now()
    const keys = [...stale].filter((key) => due(key) <= now)
    for (const key of keys) {
      stale.delete(key)
      asked.set(key, now)
    }
    isAsking = true
    await Promise.allSettled(keys.map((key) => askAfter(queries, key)))
    isAsking = false
    schedule()
  }

  return {
    /** Something changed the answers to these questions. */
    heard(keys: readonly string[]) {
      for (const key of keys) stale.add(key)
      schedule()
    },
    stop() {
      if (timer !== null) clearTimeout(timer)
      timer = null
      turn = Number.POSITIVE_INFINITY
      stale.clear()
    },
  }
}

/** Asks once what is under way has come: it may have been read before the change. */
async function askAfter(queries: QueryClient, key: string) {
  const underWay = queries
    .getQueryCache()
    .findAll({ queryKey: [key], type: 'active', fetchStatus: 'fetching' })
  await Promise.allSettled(underWay.map((query) => query.promise))
  await queries.invalidateQueries({ queryKey: [key] }, { cancelRefetch: false })
}
