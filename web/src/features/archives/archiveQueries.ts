import { queryOptions } from '@tanstack/react-query'
import { api, unwrap } from '../../api/client'

const at = (archiveId: string) => ({ params: { path: { archiveId } } })

/** Has an archive made of a group, or of all that one sees. */
export const makeArchive = (archiveId: string, groupId: string | null) =>
  unwrap(api.PUT('/api/archives/{archiveId}', { ...at(archiveId), body: { groupId } }))

export const stopArchive = (archiveId: string) =>
  unwrap(api.DELETE('/api/archives/{archiveId}', at(archiveId)))

/** How an archive stands, asked again as long as it is being made. */
export const archiveQuery = (archiveId: string | null) =>
  queryOptions({
    queryKey: ['archives', archiveId],
    queryFn: ({ signal }) => unwrap(api.GET('/api/archives/{archiveId}', { ...at(archiveId ?? ''), signal })),
    enabled: archiveId !== null,
    refetchInterval: ({ state }) => (state.data?.state === 'making' ? 400 : false),
    retry: false,
  })
