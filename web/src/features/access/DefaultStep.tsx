import { useQuery } from '@tanstack/react-query'
import { writeCalendar } from '../../model/calendarQueries'
import { defaultChoices, type Role, stepsOn } from '../../model/ladder'
import { shelfQuery } from '../../model/shelfQuery'
import { useAct } from '../../undo/useAct'
import type { Table } from './accessTable'
import { everybodyText } from './stepWords'

interface DefaultStepProps {
  calendar: Table['calendars'][number]
  groupName: string
}

/** What every member has on a calendar, changed on the spot. */
export function DefaultStep({ calendar, groupName }: DefaultStepProps) {
  const shelf = useQuery(shelfQuery)
  const layer = shelf.data?.find((one) => one.calendarId === calendar.calendarId)
  const change = useAct({
    run: async (groupDefault: Role, set) => {
      if (layer)
        await writeCalendar(
          layer.calendarId,
          layer.version,
          { ...layer, groupId: layer.groupId ?? '', ...layer.calendar, groupDefault },
          set,
        )
    },
    say: (_, groupDefault) =>
      groupDefault === 'none'
        ? `Members of ${groupName} no longer have “${calendar.name}” as such.`
        : everybodyText(groupName, calendar.name, groupDefault),
    freshen: ['access', 'shelf'],
  })
  return (
    <select
      aria-label={`Every member on ${calendar.name}`}
      value={calendar.groupDefault}
      disabled={!layer || change.isPending}
      onChange={(event) => {
        const role = defaultChoices.find((step) => step.value === event.target.value)?.value
        if (role) change.mutate(role)
      }}
      className="w-full min-w-0 rounded-control border border-cement-400 bg-surface px-1 py-0.5 text-cement-700"
    >
      {stepsOn(defaultChoices, layer ?? { web: null }).map((step) => (
        <option key={step.value} value={step.value}>
          {step.value === 'none' ? 'nothing' : step.label}
        </option>
      ))}
    </select>
  )
}
