import { keepPreviousData, queryOptions } from '@tanstack/react-query'
import { api, unwrap } from '../../api/client'

/** Everything on one's wall between two days. What was there stays until the new is. */
export const wallQuery = (from: string, to: string) =>
  queryOptions({
    queryKey: ['wall', from, to],
    queryFn: ({ signal }) => unwrap(api.GET('/api/wall', { params: { query: { from, to } }, signal })),
    placeholderData: keepPreviousData,
  })
