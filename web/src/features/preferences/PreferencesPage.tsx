import { useQueryClient } from '@tanstack/react-query'
import { type FormEvent, useState } from 'react'
import { Link } from 'react-router'
import { useReader } from '../../reader/person'
import { type Preferences, writePreferences } from '../../reader/preferences'
import { Button } from '../../ui/Button'
import { LetterKeys } from '../../ui/LetterKeys'
import { useTitle } from '../../ui/useTitle'
import { useActs } from '../../undo/acts'
import { EndAccountPart, PasswordPart } from '../accounts'
import { DevicesPart } from '../devices'
import { FeedsPart } from '../feeds'
import { Addresses } from './Addresses'
import { Guardianships } from './Guardianships'
import { NamePart } from './NamePart'
import { ClockFields, MailFields, NewEventFields, OthersFields, WeekFields } from './PreferenceFields'
import { ToldFields } from './ToldFields'

/** How one likes to see time, and what new events begin with. Kept with the account. */
export function PreferencesPage() {
  const { person } = useReader()
  const queries = useQueryClient()
  const acts = useActs()
  const [wish, setWish] = useState<Preferences>(person.preferences)
  const [error, setError] = useState<unknown>(null)
  const fields = {
    wish,
    error,
    onChange: (part: Partial<Preferences>) => setWish({ ...wish, ...part }),
  }
  useTitle('Preferences')
  const submit = async (event: FormEvent) => {
    event.preventDefault()
    try {
      await writePreferences(wish)
      setError(null)
      acts.done('Your preferences are kept.')
      await queries.invalidateQueries()
    } catch (bad) {
      setError(bad)
      acts.failed(bad)
    }
  }
  return (
    <main className="relative min-h-0 flex-1 overflow-y-auto">
      <form onSubmit={submit} className="mx-auto grid max-w-2xl gap-6 px-6 py-6 max-sm:px-3">
        <h1 className="text-2xl">Preferences</h1>
        <ClockFields {...fields} />
        <WeekFields {...fields} />
        <NewEventFields {...fields} />
        <OthersFields {...fields} />
        <ToldFields {...fields} />
        <MailFields {...fields} />
        <div className="flex items-center gap-3">
          <Button type="submit" look="main">
            Keep these
          </Button>
          <Link to="/" className="underline">
            Back to the wall
          </Link>
        </div>
      </form>
      <section className="mx-auto max-w-2xl px-6 pb-6 max-sm:px-3">
        <h2 className="mb-2 text-lg">Keys</h2>
        <LetterKeys />
      </section>
      <Guardianships />
      <DevicesPart />
      <FeedsPart />
      <NamePart />
      <Addresses />
      <PasswordPart />
      <EndAccountPart />
    </main>
  )
}
