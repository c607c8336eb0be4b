import { queryOptions } from '@tanstack/react-query'
import { api, type Schema, unwrap } from '../../api/client'

export type Suiting = Schema['Suiting']
export type AskedWhich = Schema['ProposalsAskedBody']
export type CountedProposal = Schema['ProposalsCountedBody']
type NewProposal = Schema['ProposalsNewBody']
type Suits = Schema['ProposalsSuitsBody']

const named = (set: string) => ({ 'X-Change-Set': set })

/** What one is asked, and what one can settle. */
export const proposalsQuery = queryOptions({
  queryKey: ['proposals'],
  queryFn: ({ signal }) => unwrap(api.GET('/api/proposals', { signal })),
})

export const propose = (proposalId: string, body: NewProposal, set: string) =>
  unwrap(
    api.PUT('/api/proposals/{proposalId}', { params: { path: { proposalId } }, headers: named(set), body }),
  )

export const withdrawProposal = (proposalId: string, set: string) =>
  unwrap(api.DELETE('/api/proposals/{proposalId}', { params: { path: { proposalId } }, headers: named(set) }))

export const askAgain = (proposalId: string) =>
  unwrap(api.POST('/api/proposals/{proposalId}/ask-again', { params: { path: { proposalId } } }))

/** Makes the event at one of the times. */
export const settleProposal = (proposalId: string, at: string, set: string) =>
  unwrap(
    api.POST('/api/proposals/{proposalId}/settle', {
      params: { path: { proposalId } },
      headers: named(set),
      body: { at },
    }),
  )

export const saySuits = (proposalId: string, body: Suits, set: string) =>
  unwrap(
    api.PUT('/api/proposals/{proposalId}/suits', {
      params: { path: { proposalId } },
      headers: named(set),
      body,
    }),
  )

/** What a mail asks. */
export const proposalByLink = (secret: string) =>
  queryOptions({
    queryKey: ['suits', secret],
    queryFn: ({ signal }) => unwrap(api.GET('/api/suits/{secret}', { params: { path: { secret } }, signal })),
    retry: false,
  })

export const saySuitsByLink = (secret: string, body: Suits) =>
  unwrap(api.PUT('/api/suits/{secret}', { params: { path: { secret } }, body }))
