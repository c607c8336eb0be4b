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

const withToken: Middleware = {
  onRequest({ request }) {
    if (request.method !== 'GET') {
      request.headers.set('X-Antiforgery', antiforgeryToken)
      changedAt = performance.now()
    }
    return request
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
