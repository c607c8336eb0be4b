import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { sentenceOf } from '../../api/problem'
import { setGroupRole } from '../../model/accessQueries'
import type { Layer } from '../../model/bricks'
import { groupQueries } from '../../model/groupQueries'
import { lowerSteps, type Role, stepsOn } from '../../model/ladder'
import { Alert } from '../../ui/Alert'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { useAct } from '../../undo/useAct'
import { everybodyText } from './stepWords'

/** Gives everybody in one of one's groups a step; it follows those who join and leave. */
export function GiveGroupForm({ layer }: { layer: Layer }) {
  const groups = useQuery(groupQueries.list)
  const others = (groups.data ?? []).filter((group) => group.id !== layer.groupId)
  const [wished, setGroup] = useState('')
  const [role, setRole] = useState<Role>('view')
  const group = others.find((one) => one.id === wished) ?? others[0]
  const members = useQuery({ ...groupQueries.members(group?.id ?? ''), enabled: group !== undefined })
  const give = useAct({
    run: (groupId: string, set) => setGroupRole(layer.calendarId, groupId, role, null, set),
    say: () => everybodyText(group?.name ?? 'the group', layer.name, role),
    freshen: ['access'],
    saysItself: true,
  })
  if (!group) return null
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault()
        give.mutate(group.id)
      }}
      className="mt-6 grid gap-3"
    >
      <h3 className="text-base">A whole group</h3>
      <div className="grid grid-cols-2 gap-2">
        <Choice
          label="Group"
          value={group.id}
          onChange={setGroup}
          options={others.map((one) => ({ value: one.id, label: one.name }))}
        />
        <Choice
          label="Step of the group"
          value={role}
          onChange={setRole}
          options={stepsOn(lowerSteps, layer)}
        />
      </div>
      <p className="written text-[12px] text-cement-700">
        {members.data && `${members.data.length} people now, `}and whoever joins {group.name} later. It simply
        appears on their shelves.
      </p>
      {give.isError && <Alert>{sentenceOf(give.error)}</Alert>}
      <Button type="submit" disabled={give.isPending}>
        Give it to the group
      </Button>
    </form>
  )
}
