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
