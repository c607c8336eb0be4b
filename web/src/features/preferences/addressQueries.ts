import { queryOptions } from '@tanstack/react-query'
import { api, unwrap } from '../../api/client'

/** One's own further addresses. */
export const addressesQuery = queryOptions({
  queryKey: ['addresses'],
  queryFn: ({ signal }) => unwrap(api.GET('/api/addresses', { signal })),
})

export const askToConfirm = (address: string) => unwrap(api.POST('/api/addresses', { body: { address } }))

export const confirmAddress = (secret: string) =>
  unwrap(api.POST('/api/addresses/confirm/{secret}', { params: { path: { secret } } }))

export const makeFirst = (addressId: string, password: string) =>
  unwrap(
    api.POST('/api/addresses/{addressId}/first', { params: { path: { addressId } }, body: { password } }),
  )

export const rename = (name: string) => unwrap(api.PUT('/api/name', { body: { name } }))

export const takeOutAddress = (addressId: string) =>
  unwrap(api.DELETE('/api/addresses/{addressId}', { params: { path: { addressId } } }))
