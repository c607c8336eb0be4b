import { queryOptions } from '@tanstack/react-query'
import { api, keepAntiforgeryToken, type Schema, unwrap } from '../api/client'

export type Person = Schema['SessionPersonBody']

export const sessionQuery = queryOptions({
  queryKey: ['session'],
  queryFn: async ({ signal }) => {
    const session = await unwrap(api.GET('/api/session', { signal }))
    keepAntiforgeryToken(session.antiforgeryToken)
    return session
  },
  staleTime: Number.POSITIVE_INFINITY,
})

export const demoPeopleQuery = queryOptions({
  queryKey: ['demo', 'people'],
  queryFn: ({ signal }) => unwrap(api.GET('/api/demo/people', { signal })),
})

export const signIn = (address: string, password: string) =>
  unwrap(api.POST('/api/session', { body: { address, password } }))

export const signInAsDemoPerson = (personId: string) =>
  unwrap(api.POST('/api/demo/session/{personId}', { params: { path: { personId } } }))

/** What was being written in this tab goes with who wrote it. */
export const signOut = async () => {
  await unwrap(api.DELETE('/api/session'))
  sessionStorage.clear()
}

export const makeFirstAccount = (body: Schema['FirstAccountBody']) =>
  unwrap(api.POST('/api/first-account', { body }))

/** The zone this browser is in: the first guess for a new account. */
export const browserZone = () => Intl.DateTimeFormat().resolvedOptions().timeZone
