import { useQueryClient } from '@tanstack/react-query'
import { type FormEvent, useState } from 'react'
import type { Schema } from '../../api/client'
import { fieldProblem } from '../../api/problem'
import { makeGroup, sorts } from '../../model/groupQueries'
import { useReader } from '../../reader/person'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { Desk } from '../../ui/Desk'
import { FormProblem } from '../../ui/FormProblem'
import { TextField } from '../../ui/TextField'
import { useActs } from '../../undo/acts'

/** Makes a group; its maker coordinates it. */
export function NewGroupDesk({
  onMade,
  onClose,
}: {
  onMade: (groupId: string) => void
  onClose: () => void
}) {
  const queries = useQueryClient()
  const acts = useActs()
  const { person } = useReader()
  const [groupId] = useState(() => crypto.randomUUID())
  const [name, setName] = useState('')
  const [sort, setSort] = useState<Schema['GroupSort']>('staff')
  const [error, setError] = useState<unknown>(null)
  const submit = async (event: FormEvent) => {
    event.preventDefault()
    try {
      const group = await makeGroup(groupId, {
        name,
        sort,
        zone: person.zone,
        firstDay: person.preferences.firstDay,
        dayBegins: person.preferences.dayBegins,
        dayEnds: person.preferences.dayEnds,
      })
      acts.done(`Made the group “${group.name}”. Make its first calendar next.`)
      await queries.invalidateQueries({ queryKey: ['groups'] })
      onMade(groupId)
    } catch (bad) {
      setError(bad)
    }
  }
  return (
    <Desk title="New group" onClose={onClose}>
      <form onSubmit={submit} className="grid gap-3">
        <TextField
          label="Name"
          value={name}
          onChange={setName}
          problem={fieldProblem(error, 'name')}
          autoFocus
          required
        />
        <Choice label="Sort" value={sort} onChange={setSort} options={sorts} />
        <p className="text-cement-700">
          Its calendars are on the clock of {person.zone}; each can be given another.
        </p>
        <FormProblem error={error} fields={['name']} />
        <Button type="submit" look="main" wide>
          Make the group
        </Button>
      </form>
    </Desk>
  )
}
