import { queryOptions } from '@tanstack/react-query'
import { api, unwrap } from '../../api/client'

export const shelfQuery = queryOptions({
  queryKey: ['shelf'],
  queryFn: ({ signal }) => unwrap(api.GET('/api/shelf', { signal })),
})

export const showLayer = (calendarId: string, shown: boolean) =>
  unwrap(api.PUT('/api/shelf/{calendarId}', { params: { path: { calendarId } }, body: { shown } }))
