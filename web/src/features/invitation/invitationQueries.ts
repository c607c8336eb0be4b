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

export const acceptInvitation = (invitationId: string, set: string) =>
  unwrap(
    api.POST('/api/invitations/{invitationId}/accept', {
      params: { path: { invitationId } },
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
