import { queryOptions } from '@tanstack/react-query'
import { api, unwrap } from '../api/client'

export const inboxQuery = queryOptions({
  queryKey: ['inbox'],
  queryFn: ({ signal }) => unwrap(api.GET('/api/inbox', { signal })),
})

export const seeInbox = () => unwrap(api.POST('/api/inbox/seen'))
