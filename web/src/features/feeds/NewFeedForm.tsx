import { useQuery } from '@tanstack/react-query'
import { type FormEvent, useState } from 'react'
import { useSearchParams } from 'react-router'
import { fieldProblem } from '../../api/problem'
import { setsQuery, shelfQuery } from '../../model/shelfQuery'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { FormProblem } from '../../ui/FormProblem'
import { useBroughtIntoView } from '../../ui/useBroughtIntoView'
import { useAct } from '../../undo/useAct'
import { type FeedWish, type MadeFeed, makeFeed } from './feedQueries'

const steps = [
  { value: 'view', label: 'all that I see' },
  { value: 'outline', label: 'titles and places, to hand on' },
  { value: 'times', label: 'only when it is busy, to hand on' },
] as const

/** A new feed: of what one is named on, a calendar, or the calendars of a set. */
export function NewFeedForm({ onMade }: { onMade: (made: MadeFeed) => void }) {
  const shelf = useQuery(shelfQuery)
  const sets = useQuery(setsQuery)
  const [search] = useSearchParams()
  const asked = search.get('feed')
  const [of, setOf] = useState(asked ? `calendar ${asked}` : 'mine')
  const form = useBroughtIntoView<HTMLFormElement>(asked !== null)
  const [role, setRole] = useState<(typeof steps)[number]['value']>('view')
  const [error, setError] = useState<unknown>(null)
  const make = useAct({
    run: () => makeFeed(wishOf(of, role)),
    say: () => 'Made the feed.',
    isFinal: () => true,
    freshen: ['feeds'],
    onDone: (made) => {
      setError(null)
      onMade(made)
    },
    saysItself: true,
  })
  const submit = (event: FormEvent) => {
    event.preventDefault()
    make.mutate(undefined, { onError: setError })
  }
  return (
    <form
      ref={form}
      tabIndex={-1}
      onSubmit={submit}
      className="grid grid-cols-[1fr_1fr_auto] items-end gap-2 max-sm:grid-cols-1"
      noValidate
    >
      <Choice
        label="A feed of"
        value={of}
        onChange={(next) => {
          setOf(next)
          if (next === 'mine' && role === 'times') setRole('view')
        }}
        options={[
          { value: 'mine', label: 'what I am named on' },
          ...(sets.data ?? []).map((set) => ({ value: `set ${set.id}`, label: `the set ${set.name}` })),
          ...(shelf.data ?? []).map((layer) => ({
            value: `calendar ${layer.calendarId}`,
            label: layer.calendar.name,
          })),
        ]}
        problem={fieldProblem(error, 'of')}
      />
      <Choice
        label="It tells"
        value={role}
        onChange={setRole}
        options={of === 'mine' ? steps.filter((step) => step.value !== 'times') : steps}
        problem={fieldProblem(error, 'role')}
      />
      <Button type="submit" disabled={make.isPending}>
        Make the feed
      </Button>
      <FormProblem error={error} fields={['of', 'role']} />
    </form>
  )
}

function wishOf(of: string, role: FeedWish['role']): FeedWish {
  const [what, id] = of.split(' ')
  return what === 'calendar' && id
    ? { of: 'calendar', calendarId: id, role }
    : what === 'set' && id
      ? { of: 'set', setId: id, role }
      : { of: 'mine', role }
}
