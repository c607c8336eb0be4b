import createClient, { type Middleware } from 'openapi-fetch'
import { ProblemError } from './problem'
import type { components, paths } from './schema'

export type Schema = components['schemas']

let antiforgeryToken = ''

/** Keeps the token that every change is sent with; it is told with the session. */
export const keepAntiforgeryToken = (token: string) => {
  antiforgeryToken = token
}

/** Headers for a request that is made without the typed client. */
export const changeHeaders = (set: string) => ({ 'X-Antiforgery': antiforgeryToken, 'X-Change-Set': set })

let changedAt = Number.NEGATIVE_INFINITY

/** How many milliseconds ago this page last sent a change: what is heard just after it is one's own doing. */
export const sinceOwnChange = (): number => performance.now() - changedAt

/** When each act of this page was answered, by its set; not yet: infinitely far ahead. */
const acts = new Map<string, number>()

/** How many acts are remembered: what is heard of one is heard soon. */
const mostActs = 200

/** When this page heard the answer to an act of its own; `null` for an act of another one. */
export const answeredAt = (set: string): number | null => acts.get(set) ?? null

const remember = (set: string, at: number) => {
  acts.delete(set)
  acts.set(set, at)
  for (const oldest of acts.keys()) {
    if (acts.size <= mostActs) break
    acts.delete(oldest)
  }
}

const answered = (request: Request) => {
  const set = request.headers.get('X-Change-Set')
  if (set && request.method !== 'GET') remember(set, performance.now())
}

const withToken: Middleware = {
  onRequest({ request }) {
    if (request.method !== 'GET') {
      request.headers.set('X-Antiforgery', antiforgeryToken)
      changedAt = performance.now()
      const set = request.headers.get('X-Change-Set')
      if (set) remember(set, Number.POSITIVE_INFINITY)
    }
    return request
  },
  onResponse({ request }) {
    answered(request)
  },
  onError({ request }) {
    answered(request)
  },
}

export const api = createClient<paths>({ baseUrl: '/' })
api.use(withToken)

type Answer<T> = { data?: T; error?: unknown; response: Response }

/** The body of an answer, or the problem thrown. */
export async function unwrap<T>(answer: Promise<Answer<T>>): Promise<T> {
  const { data, error, response } = await answer
  if (!response.ok) throw ProblemError.from(error, response.status)
  // An answer without a body (204) is undefined by its type as well.
  return data as T
}
