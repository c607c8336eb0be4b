import { queryOptions } from '@tanstack/react-query'
import { api, unwrap } from '../../api/client'
import { ProblemError } from '../../api/problem'

/** Whether a code is asked for beside one's password, and how many recovery codes are left. */
export const secondFactorQuery = queryOptions({
  queryKey: ['second-factor'],
  queryFn: ({ signal }) => unwrap(api.GET('/api/second-factor', { signal })),
  staleTime: 0,
})

export const newSecondFactorKey = () => unwrap(api.GET('/api/second-factor/key'))

export const switchSecondFactorOn = (key: string, code: string, password: string) =>
  unwrap(api.POST('/api/second-factor', { body: { key, code, password } }))

export const switchSecondFactorOff = (password: string) =>
  unwrap(api.POST('/api/second-factor/off', { body: { password } }))

export const makeRecoveryCodes = (password: string) =>
  unwrap(api.POST('/api/second-factor/codes', { body: { password } }))

/** The code after the password; an app's or a recovery code. */
export const signInWithCode = (code: string) => unwrap(api.POST('/api/session/second', { body: { code } }))

/** Whether the password was right and a code is asked for. */
export const isCodeAsked = (error: unknown) =>
  error instanceof ProblemError && error.type === 'urn:mortar:second-factor'
