import createClient, { type Middleware } from 'openapi-fetch'
import { ProblemError } from './problem'
import type { components, paths } from './schema'
import { signedInAgain } from './signedOut'

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

/** The acts of this page by their sets: how many requests of each are not answered yet, and when the last one was. */
const acts = new Map<string, { pending: number; at: number }>()

/** How many acts are remembered: what is heard of one is heard soon. */
const mostActs = 200

/** When this page heard the last answer to an act of its own, infinitely far ahead for not yet; `null` for an act of another one. */
export const answeredAt = (set: string): number | null => {
  const act = acts.get(set)
  if (!act) return null
  return act.pending > 0 ? Number.POSITIVE_INFINITY : act.at
}

const sent = (set: string) => {
  const pending = (acts.get(set)?.pending ?? 0) + 1
  acts.delete(set)
  acts.set(set, { pending, at: Number.POSITIVE_INFINITY })
  for (const oldest of acts.keys()) {
    if (acts.size <= mostActs) break
    acts.delete(oldest)
  }
}

const answered = (request: Request) => {
  const act = acts.get(request.headers.get('X-Change-Set') ?? '')
  if (!act || request.method === 'GET') return
  act.pending -= 1
  act.at = performance.now()
}

/** Requests as they were before they were sent: one whose sign-in had ended is sent once more after somebody signed in again. */
const unsent = new WeakMap<Request, Request>()

const withToken: Middleware = {
  onRequest({ request }) {
    if (request.method !== 'GET') {
      request.headers.set('X-Antiforgery', antiforgeryToken)
      changedAt = performance.now()
      const set = request.headers.get('X-Change-Set')
      if (set) sent(set)
    }
    if (!request.url.includes('/api/session')) unsent.set(request, request.clone())
    return request
  },
  async onResponse({ request, response }) {
    const again = response.status === 401 ? unsent.get(request) : undefined
    if (again && (await signedInAgain())) {
      if (again.method !== 'GET') again.headers.set('X-Antiforgery', antiforgeryToken)
      return fetch(again).finally(() => answered(request))
    }
    answered(request)
    return response
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
