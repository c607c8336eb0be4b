import { queryOptions } from '@tanstack/react-query'
import { api, type Schema, unwrap } from '../../api/client'

export type Feed = Schema['FeedsBody']
export type FeedWish = Schema['FeedsWishBody']
export type MadeFeed = Schema['FeedsMadeBody']

export const feedsQuery = queryOptions({
  queryKey: ['feeds'],
  queryFn: ({ signal }) => unwrap(api.GET('/api/feeds', { signal })),
})

export const makeFeed = (body: FeedWish) =>
  unwrap(api.PUT('/api/feeds/{feedId}', { params: { path: { feedId: crypto.randomUUID() } }, body }))

export const renewFeed = (feedId: string) =>
  unwrap(api.POST('/api/feeds/{feedId}/renew', { params: { path: { feedId } } }))

export const endFeed = (feedId: string) =>
  unwrap(api.DELETE('/api/feeds/{feedId}', { params: { path: { feedId } } }))
