import { queryOptions } from '@tanstack/react-query'
import { api, unwrap } from '../api/client'

/** Who was asked to be in a group and has not answered; for those who coordinate it. */
export const askedQuery = (groupId: string) =>
  queryOptions({
    queryKey: ['groups', groupId, 'asked'],
    queryFn: ({ signal }) =>
      unwrap(api.GET('/api/groups/{groupId}/asked', { params: { path: { groupId } }, signal })),
  })

/** What somebody who is taken out could be left. */
export const endingQuery = (groupId: string, personId: string) =>
  queryOptions({
    queryKey: ['groups', groupId, 'members', personId, 'ending'],
    queryFn: ({ signal }) =>
      unwrap(
        api.GET('/api/groups/{groupId}/members/{personId}/ending', {
          params: { path: { groupId, personId } },
          signal,
        }),
      ),
  })

const named = (set: string) => ({ 'X-Change-Set': set })

export const withdrawAsking = (groupId: string, personId: string, set: string) =>
  unwrap(
    api.DELETE('/api/groups/{groupId}/asked/{personId}', {
      params: { path: { groupId, personId } },
      headers: named(set),
    }),
  )

/** Says that one is a guest of a group, who is known there by an address of one's own. */
export const claimGuest = (groupId: string, personId: string, set: string) =>
  unwrap(
    api.POST('/api/groups/{groupId}/guests/{personId}/claim', {
      params: { path: { groupId, personId } },
      headers: named(set),
    }),
  )

/** One's own answer to being in a group. */
export const answerMembership = (groupId: string, yes: boolean, set: string) =>
  unwrap(
    api.POST(yes ? '/api/memberships/{groupId}/accept' : '/api/memberships/{groupId}/decline', {
      params: { path: { groupId } },
      headers: named(set),
    }),
  )

/** One's own answer to being, or having, a guardian. */
export const answerGuardianship = (guardianshipId: string, yes: boolean, set: string) =>
  unwrap(
    api.POST(
      yes ? '/api/guardianships/{guardianshipId}/accept' : '/api/guardianships/{guardianshipId}/decline',
      { params: { path: { guardianshipId } }, headers: named(set) },
    ),
  )

/** Where one has a guardian, or is one. */
export const guardianshipsQuery = queryOptions({
  queryKey: ['guardianships'],
  queryFn: ({ signal }) => unwrap(api.GET('/api/guardianships', { signal })),
})

export const endGuardianship = (guardianshipId: string, set: string) =>
  unwrap(
    api.DELETE('/api/guardianships/{guardianshipId}', {
      params: { path: { guardianshipId } },
      headers: named(set),
    }),
  )
