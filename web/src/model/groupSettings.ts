import type { Schema } from '../api/client'

type Group = Schema['GroupsGroupBody']

/** What of a group is set, as it is sent to be changed. */
export const settingsOf = ({
  name,
  sort,
  zone,
  firstDay,
  dayBegins,
  dayEnds,
  cover,
  daysOff,
  shortName,
}: Group): Schema['GroupsSettingsBody'] => ({
  name,
  sort,
  zone,
  firstDay,
  dayBegins,
  dayEnds,
  cover,
  daysOff,
  shortName,
})
