import { api, unwrap } from '../../api/client'

/** Agrees to an absence that waits for it, or takes it off the plan; who entered it is told. */
export const agreeToEvent = (
  eventId: string,
  version: number,
  wish: { agrees: boolean; comment: string },
  set: string,
) =>
  unwrap(
    api.PUT('/api/events/{eventId}/agreement', {
      params: { path: { eventId }, header: { 'If-Match': `"${version}"` } },
      headers: { 'X-Change-Set': set },
      body: wish,
    }),
  )
