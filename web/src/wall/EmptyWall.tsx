import { Button } from '../ui/Button'

/** A wall without layers offers the first step. */
export function EmptyWall({
  hasGroup,
  onNewCalendar,
  onNewGroup,
}: {
  hasGroup: boolean
  onNewCalendar: () => void
  onNewGroup: () => void
}) {
  return (
    <div className="grid flex-1 place-content-center justify-items-center gap-3 p-8 text-center">
      <h2 className="text-xl">Nothing on your wall yet</h2>
      <p className="max-w-sm text-cement-700">
        {hasGroup
          ? 'Make the first calendar of your group, or wait for an invitation: it arrives in your inbox.'
          : 'Make a group first: a staff team, a class, a club or a family. Its calendars come next.'}
      </p>
      <Button look="main" onClick={hasGroup ? onNewCalendar : onNewGroup}>
        {hasGroup ? 'Make a calendar' : 'Make a group'}
      </Button>
    </div>
  )
}
