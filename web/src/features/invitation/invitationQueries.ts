import { queryOptions } from '@tanstack/react-query'
import { api, type Schema, unwrap } from '../../api/client'

export const invitationByLink = (token: string) =>
  queryOptions({
    queryKey: ['invitation', token],
    queryFn: ({ signal }) =>
      unwrap(api.GET('/api/invitation-links/{token}', { params: { path: { token } }, signal })),
  })

export const makeAccountByInvitation = (token: string, body: Schema['OpenInvitationAccountBody']) =>
  unwrap(api.POST('/api/invitation-links/{token}/account', { params: { path: { token } }, body }))

/** A name in a group that a mailed link leads to. */
export const joiningByLink = (token: string) =>
  queryOptions({
    queryKey: ['joining', token],
    queryFn: ({ signal }) => unwrap(api.GET('/api/joining/{token}', { params: { path: { token } }, signal })),
  })

export const joinWithNewAccount = (token: string, body: Schema['JoinGroupAccountBody']) =>
  unwrap(api.POST('/api/joining/{token}/account', { params: { path: { token } }, body }))

export const joinAsMyself = (token: string) =>
  unwrap(api.POST('/api/joining/{token}', { params: { path: { token } } }))

export const acceptInvitation = (
  invitationId: string,
  gift: { calendarId: string; role: Schema['Role'] } | null,
  set: string,
) =>
  unwrap(
    api.POST('/api/invitations/{invitationId}/accept', {
      params: {
        path: { invitationId },
        query: gift ? { inReturn: gift.calendarId, inReturnRole: gift.role } : {},
      },
      headers: { 'X-Change-Set': set },
    }),
  )

export const declineInvitation = (invitationId: string, set: string) =>
  unwrap(
    api.POST('/api/invitations/{invitationId}/decline', {
      params: { path: { invitationId } },
      headers: { 'X-Change-Set': set },
    }),
  )
