import type { Schema } from '../../api/client'
import { type Role, reaches, roleName } from '../../model/ladder'

/** What was given to somebody, and what counts where they have more by another way: the highest does. */
export const givenText = (who: string, calendar: string, role: Role, stays: Role): string =>
  reaches(stays, role) && stays !== role
    ? `${who} was given ${roleName(role)} on “${calendar}”, and keeps ${roleName(stays)}, which comes by another way.`
    : `${who} has the step ${roleName(role)} on “${calendar}” now.`

/** What a whole group was given: some of it may have more. */
export const everybodyText = (group: string, calendar: string, role: Role): string =>
  `Everybody in ${group} has at least ${roleName(role)} on “${calendar}” now.`

/** What somebody loses where what was given to them ends. */
export const lossText = (who: string, calendar: string, stays: Role): string =>
  stays === 'none'
    ? `“${calendar}” leaves the wall of ${who} at once.`
    : `${who} keeps ${roleName(stays)} on “${calendar}”, which comes by another way.`

/** What became of those who were invited at once, as the answer says. */
export function becameText(became: readonly { fate: Schema['InviteeFate'] }[]): string {
  const count = (fate: Schema['InviteeFate']) => became.filter((one) => one.fate === fate).length
  const [sent, invited, inside] = [count('invited'), count('invitedAlready'), count('hasStep')]
  return [
    sent === 1 ? 'One invitation sent.' : `${sent} invitations sent.`,
    invited > 0 && `${invited} ${invited === 1 ? 'was' : 'were'} invited already.`,
    inside > 0 && `${inside} ${inside === 1 ? 'has' : 'have'} access already.`,
  ]
    .filter(Boolean)
    .join(' ')
}
