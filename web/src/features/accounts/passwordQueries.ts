import { queryOptions } from '@tanstack/react-query'
import { api, unwrap } from '../../api/client'

/** Has a link mailed by which a new password is set; it says the same whether there is such an account. */
export const forgotPassword = (address: string) =>
  unwrap(api.POST('/api/password/forgotten', { body: { address } }))

export const resetPassword = (secret: string, password: string) =>
  unwrap(api.POST('/api/password/reset/{secret}', { params: { path: { secret } }, body: { password } }))

export const changePassword = (current: string, password: string) =>
  unwrap(api.PUT('/api/password', { body: { current, password } }))

/** Where one is signed in. */
export const signInsQuery = queryOptions({
  queryKey: ['sign-ins'],
  queryFn: ({ signal }) => unwrap(api.GET('/api/sign-ins', { signal })),
  staleTime: 0,
})

export const endSignIn = (signInId: string) =>
  unwrap(api.DELETE('/api/sign-ins/{signInId}', { params: { path: { signInId } } }))

export const endOtherSignIns = () => unwrap(api.DELETE('/api/sign-ins'))

/** What becomes of what when one's account goes. */
export const accountEndingQuery = queryOptions({
  queryKey: ['account-ending'],
  queryFn: ({ signal }) => unwrap(api.GET('/api/account/ending', { signal })),
  staleTime: 0,
})

export const deleteAccount = (password: string, keepsName: boolean) =>
  unwrap(api.POST('/api/account/delete', { body: { password, keepsName } }))
