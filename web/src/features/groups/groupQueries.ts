import { queryOptions } from '@tanstack/react-query'
import { api, type Schema, unwrap } from '../../api/client'

export const groupQueries = {
  list: queryOptions({
    queryKey: ['groups'],
    queryFn: ({ signal }) => unwrap(api.GET('/api/groups', { signal })),
  }),
  members: (groupId: string) =>
    queryOptions({
      queryKey: ['groups', groupId, 'members'],
      queryFn: ({ signal }) =>
        unwrap(api.GET('/api/groups/{groupId}/members', { params: { path: { groupId } }, signal })),
    }),
}

export const makeGroup = (groupId: string, body: Schema['GroupsSettingsBody']) =>
  unwrap(api.PUT('/api/groups/{groupId}', { params: { path: { groupId } }, body }))

const key = 'mortar-group'

/** The group that was opened last on this device. */
export const lastGroup = (): string | null => localStorage.getItem(key)

export const keepLastGroup = (groupId: string) => localStorage.setItem(key, groupId)
