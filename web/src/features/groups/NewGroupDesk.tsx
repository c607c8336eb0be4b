import { useQuery, useQueryClient } from '@tanstack/react-query'
import { type FormEvent, useState } from 'react'
import type { Schema } from '../../api/client'
import { fieldProblem } from '../../api/problem'
import { groupQueries, makeGroup, makeGroupLike, sorts } from '../../model/groupQueries'
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
  onMadeLike,
  onClose,
}: {
  onMade: (groupId: string) => void
  /** It has its calendars already. */
  onMadeLike: (groupId: string) => void
  onClose: () => void
}) {
  const queries = useQueryClient()
  const acts = useActs()
  const { person } = useReader()
  const [groupId] = useState(() => crypto.randomUUID())
  const [name, setName] = useState('')
  const [sort, setSort] = useState<Schema['GroupSort']>('staff')
  const [error, setError] = useState<unknown>(null)
  const mine = (useQuery(groupQueries.list).data ?? []).filter((group) => group.coordinates)
  const [like, setLike] = useState('')
  const model = mine.find((group) => group.id === like)
  const submit = async (event: FormEvent) => {
    event.preventDefault()
    try {
      if (model) {
        const made = await makeGroupLike(groupId, model.id, name)
        acts.done(madeText(made))
        for (const key of ['groups', 'shelf', 'wall']) await queries.invalidateQueries({ queryKey: [key] })
        onMadeLike(groupId)
        return
      }
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
        {mine.length > 0 && (
          <Choice
            label="Like"
            value={like}
            onChange={setLike}
            options={[
              { value: '', label: 'No other group' },
              ...mine.map((group) => ({ value: group.id, label: group.name })),
            ]}
          />
        )}
        {model ? (
          <p className="text-cement-700">
            It gets what “{model.name}” has: hours, cover and its calendars with their kinds and what every
            member gets, each empty. People are not taken over, nor what is one person’s.
          </p>
        ) : (
          <>
            <Choice label="Sort" value={sort} onChange={setSort} options={sorts} />
            <p className="text-cement-700">
              Its calendars are on the clock of {person.zone}; each can be given another.
            </p>
          </>
        )}
        <FormProblem error={error} fields={['name']} />
        <Button type="submit" look="main" wide>
          Make the group
        </Button>
      </form>
    </Desk>
  )
}

/** What became of it. */
function madeText({ group, calendars, leftOut }: Schema['GroupsMadeLikeBody']): string {
  const made = calendars === 1 ? 'one calendar' : `${calendars} calendars`
  const out =
    leftOut === 0
      ? ''
      : leftOut === 1
        ? ' One calendar is not taken over.'
        : ` ${leftOut} calendars are not taken over.`
  return `Made the group “${group.name}” with ${made}.${out} Add its people next.`
}
