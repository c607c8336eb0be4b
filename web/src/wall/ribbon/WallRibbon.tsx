import { useLowWeeks } from '../../features/availability/useLowWeeks'
import { addDays } from '../../model/times'
import { weekStart } from '../../model/views'
import type { Wall } from '../useWall'
import { AskBar } from './AskBar'
import { Ribbon } from './Ribbon'

/** How many weeks the ribbon has, and how many of them lie before today. */
const ribbonWeeks = 26
const ribbonBefore = 5

/** The half year over the wall, and what can be asked of it. */
export function WallRibbon({ wall }: { wall: Wall }) {
  const { at, group, read, asked, seeking } = wall
  const from = ribbonFrom(at.date, at.today, at.firstDay)
  const low = useLowWeeks(
    read.isRead && group && group.cover.length > 0 ? group.id : undefined,
    from,
    ribbonWeeks,
  )
  return (
    <Ribbon
      from={from}
      weeks={at.narrow ? 13 : ribbonWeeks}
      first={at.period.first}
      last={at.period.last}
      today={at.today}
      calendars={[...read.byId.keys()]}
      low={low}
      onGo={at.goTo}
    >
      <AskBar
        open={at.desk?.kind}
        clashes={asked.clashing.all?.length}
        onGaps={seeking.seekForView}
        onFree={() => at.place({ kind: 'free' })}
        onClashes={() => at.place({ kind: 'clashes' })}
      />
    </Ribbon>
  )
}

/** It begins some weeks before today as long as the day in view is on it then, else before that day. */
function ribbonFrom(date: string, today: string, firstDay: Parameters<typeof weekStart>[1]): string {
  const isNear =
    date >= addDays(today, -7 * ribbonBefore) && date <= addDays(today, 7 * (ribbonWeeks - ribbonBefore - 2))
  return addDays(weekStart(isNear ? today : date, firstDay), -7 * ribbonBefore)
}
