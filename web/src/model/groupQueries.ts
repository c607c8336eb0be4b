import { keepPreviousData, queryOptions } from '@tanstack/react-query'
import { api, type Schema, unwrap } from '../api/client'

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
  /** The group at a short address, for its members. */
  at: (name: string) =>
    queryOptions({
      queryKey: ['groups', 'at', name],
      queryFn: ({ signal }) =>
        unwrap(api.GET('/api/groups/by-address/{name}', { params: { path: { name } }, signal })),
      retry: false,
    }),
  /** Whether a group can have a name in its short address, and which it can. */
  address: (groupId: string, name: string, enabled: boolean) =>
    queryOptions({
      queryKey: ['groups', groupId, 'address', name],
      queryFn: ({ signal }) =>
        unwrap(
          api.GET('/api/groups/{groupId}/address', {
            params: { path: { groupId }, query: { name } },
            signal,
          }),
        ),
      placeholderData: keepPreviousData,
      enabled,
    }),
  /** What the world reads of its calendars. */
  openNoticeboards: (groupId: string) =>
    queryOptions({
      queryKey: ['groups', groupId, 'noticeboards'],
      queryFn: ({ signal }) =>
        unwrap(api.GET('/api/groups/{groupId}/noticeboards/open', { params: { path: { groupId } }, signal })),
    }),
  guests: (groupId: string) =>
    queryOptions({
      queryKey: ['groups', groupId, 'guests'],
      queryFn: ({ signal }) =>
        unwrap(api.GET('/api/groups/{groupId}/guests', { params: { path: { groupId } }, signal })),
    }),
}

/** Makes a group like another: its settings and calendars, without people and events. */
export const makeGroupLike = (groupId: string, modelId: string, name: string) =>
  unwrap(
    api.PUT('/api/groups/{groupId}/like/{modelId}', {
      params: { path: { groupId, modelId } },
      body: { name },
    }),
  )

/** Somebody outside the group who can be named on its events, by their address; who has it in the group, where somebody does. */
export const addGuest = (groupId: string, text: string) =>
  unwrap(
    api.PUT('/api/groups/{groupId}/guests/{personId}', {
      params: { path: { groupId, personId: crypto.randomUUID() } },
      body: { text },
    }),
  )

export const removeGuest = (groupId: string, personId: string, set: string) =>
  unwrap(
    api.DELETE('/api/groups/{groupId}/guests/{personId}', {
      params: { path: { groupId, personId } },
      headers: named(set),
    }),
  )

/** How a pasted list is understood; nothing is added by it. */
export const readPeople = (groupId: string, text: string) =>
  queryOptions({
    queryKey: ['groups', groupId, 'people', text],
    queryFn: ({ signal }) =>
      unwrap(
        api.POST('/api/groups/{groupId}/people', { params: { path: { groupId } }, body: { text }, signal }),
      ),
    placeholderData: keepPreviousData,
  })

const named = (set: string) => ({ 'X-Change-Set': set })

export const addMembers = (groupId: string, people: Schema['ChangeMembersNewBody'][], set: string) =>
  unwrap(
    api.PUT('/api/groups/{groupId}/members', {
      params: { path: { groupId } },
      headers: named(set),
      body: { people },
    }),
  )

export const correctMember = (
  groupId: string,
  personId: string,
  body: Schema['ChangeMembersCorrectBody'],
  set: string,
) =>
  unwrap(
    api.PUT('/api/groups/{groupId}/members/{personId}', {
      params: { path: { groupId, personId } },
      headers: named(set),
      body,
    }),
  )

export const setCoordinates = (groupId: string, personId: string, coordinates: boolean, set: string) =>
  unwrap(
    api.PUT('/api/groups/{groupId}/members/{personId}/coordinates', {
      params: { path: { groupId, personId } },
      headers: named(set),
      body: { coordinates },
    }),
  )

export const inviteMember = (groupId: string, personId: string, set: string) =>
  unwrap(
    api.POST('/api/groups/{groupId}/members/{personId}/invite', {
      params: { path: { groupId, personId } },
      headers: named(set),
    }),
  )

export interface Going {
  leavesEvents: boolean
  /** Who coordinates from now on what they alone did. */
  handOnTo?: string
}

export const endMembership = (groupId: string, personId: string, going: Going, set: string) =>
  unwrap(
    api.DELETE('/api/groups/{groupId}/members/{personId}', {
      params: { path: { groupId, personId }, query: { ...going } },
      headers: named(set),
    }),
  )

/** Who sees and answers for a member; whoever is not named does so no longer. */
export const setGuardians = (groupId: string, personId: string, guardians: string[], set: string) =>
  unwrap(
    api.PUT('/api/groups/{groupId}/members/{personId}/guardians', {
      params: { path: { groupId, personId } },
      headers: named(set),
      body: { guardians },
    }),
  )

export const sorts: readonly { value: Schema['GroupSort']; label: string }[] = [
  { value: 'staff', label: 'Staff' },
  { value: 'class', label: 'Class' },
  { value: 'club', label: 'Club' },
  { value: 'family', label: 'Family' },
  { value: 'other', label: 'Other' },
]

export const writeGroup = (
  groupId: string,
  version: number,
  body: Schema['GroupsSettingsBody'],
  set: string,
) =>
  unwrap(
    api.PUT('/api/groups/{groupId}', {
      params: { path: { groupId }, header: { 'If-Match': `"${version}"` } },
      headers: named(set),
      body,
    }),
  )

export const makeGroup = (groupId: string, body: Schema['GroupsSettingsBody']) =>
  unwrap(api.PUT('/api/groups/{groupId}', { params: { path: { groupId } }, body }))

/** What ending a group would take along. */
export const groupEndingQuery = (groupId: string) =>
  queryOptions({
    queryKey: ['groups', groupId, 'ending'],
    queryFn: ({ signal }) =>
      unwrap(api.GET('/api/groups/{groupId}/ending', { params: { path: { groupId } }, signal })),
    staleTime: 0,
  })

export const putToRest = (groupId: string, set: string) =>
  unwrap(api.POST('/api/groups/{groupId}/rest', { params: { path: { groupId } }, headers: named(set) }))

export const wakeGroup = (groupId: string, set: string) =>
  unwrap(api.POST('/api/groups/{groupId}/wake', { params: { path: { groupId } }, headers: named(set) }))

export const deleteGroup = (groupId: string, name: string, set: string) =>
  unwrap(
    api.DELETE('/api/groups/{groupId}', {
      params: { path: { groupId }, query: { name } },
      headers: named(set),
    }),
  )

const key = 'mortar-group'

/** The group that was opened last on this device. */
export const lastGroup = (): string | null => localStorage.getItem(key)

export const keepLastGroup = (groupId: string) => localStorage.setItem(key, groupId)
