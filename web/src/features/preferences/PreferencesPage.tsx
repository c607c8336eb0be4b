import { useQuery, useQueryClient } from '@tanstack/react-query'
import { type FormEvent, useState } from 'react'
import { Link } from 'react-router'
import { fieldProblem } from '../../api/problem'
import { zonesQuery } from '../../model/calendarQueries'
import { shelfQuery } from '../../model/shelfQuery'
import { useReader } from '../../reader/person'
import { asClock, asMinutes, type Preferences, weekdays, writePreferences } from '../../reader/preferences'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { ClockField } from '../../ui/ClockField'
import { useTitle } from '../../ui/useTitle'
import { useActs } from '../../undo/acts'
import { Addresses } from './Addresses'
import { Guardianships } from './Guardianships'

const languages = [
  { value: '', label: 'As this page' },
  { value: 'en-GB', label: 'English, day first (en-GB)' },
  { value: 'en-CA', label: 'English, Canada (en-CA)' },
  { value: 'de-DE', label: 'German (de-DE)' },
  { value: 'sv-SE', label: 'Swedish (sv-SE)' },
  { value: 'pl-PL', label: 'Polish (pl-PL)' },
  { value: 'fr-FR', label: 'French (fr-FR)' },
  { value: 'ar-EG', label: 'Arabic (ar-EG)' },
]

/** How one likes to see time, and what new events begin with. Kept with the account. */
export function PreferencesPage() {
  const { person } = useReader()
  const queries = useQueryClient()
  const acts = useActs()
  const zones = useQuery(zonesQuery)
  const shelf = useQuery(shelfQuery)
  const [wish, setWish] = useState<Preferences>(person.preferences)
  const [error, setError] = useState<unknown>(null)
  const set = (part: Partial<Preferences>) => setWish({ ...wish, ...part })
  const zoneOptions = (zones.data ?? [wish.zone]).map((zone) => ({
    value: zone,
    label: zone.replaceAll('_', ' '),
  }))
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
        <fieldset className="grid grid-cols-2 gap-3 max-sm:grid-cols-1">
          <legend className="mb-2 font-head text-lg font-bold">Clock</legend>
          <Choice
            label="Your time zone"
            value={wish.zone}
            onChange={(zone) => set({ zone })}
            options={zoneOptions}
            problem={fieldProblem(error, 'zone')}
            hint="The wall shows everything on this clock."
          />
          <Choice
            label="A second zone along the hours"
            value={wish.secondZone ?? ''}
            onChange={(zone) => set({ secondZone: zone === '' ? null : zone })}
            options={[{ value: '', label: 'None' }, ...zoneOptions]}
            problem={fieldProblem(error, 'secondZone')}
          />
          <Choice
            label="Hours"
            value={wish.clock}
            onChange={(clock) => set({ clock })}
            options={[
              { value: 'hours24', label: '19:00' },
              { value: 'hours12', label: '7:00 pm' },
            ]}
          />
          <Choice
            label="Language of dates"
            value={wish.locale}
            onChange={(locale) => set({ locale })}
            options={
              languages.some((one) => one.value === wish.locale)
                ? languages
                : [...languages, { value: wish.locale, label: wish.locale }]
            }
            problem={fieldProblem(error, 'locale')}
          />
        </fieldset>
        <fieldset className="grid grid-cols-2 gap-3 max-sm:grid-cols-1">
          <legend className="mb-2 font-head text-lg font-bold">Week and day</legend>
          <Choice
            label="Weeks begin on"
            value={wish.firstDay}
            onChange={(firstDay) => set({ firstDay })}
            options={weekdays.map((day) => ({
              value: day,
              label: `${day[0]?.toUpperCase()}${day.slice(1)}`,
            }))}
          />
          <div className="grid grid-cols-2 gap-3">
            <ClockField
              label="Usual hours from"
              value={asClock(wish.dayBegins)}
              onChange={(clock) => set({ dayBegins: asMinutes(clock) })}
            />
            <ClockField
              label="to"
              value={asClock(wish.dayEnds)}
              onChange={(clock) => set({ dayEnds: asMinutes(clock) })}
              problem={fieldProblem(error, 'dayEnds')}
            />
          </div>
        </fieldset>
        <fieldset className="grid grid-cols-2 gap-3 max-sm:grid-cols-1">
          <legend className="mb-2 font-head text-lg font-bold">New events</legend>
          <Choice
            label="Go to"
            value={wish.eventCalendar ?? ''}
            onChange={(id) => set({ eventCalendar: id === '' ? null : id })}
            options={[
              { value: '', label: 'The calendar written to last' },
              ...(shelf.data ?? [])
                .filter((layer) => layer.may.add)
                .map((layer) => ({ value: layer.calendarId, label: layer.name })),
            ]}
          />
          <Choice
            label="Are at first"
            value={String(wish.eventMinutes)}
            onChange={(minutes) => set({ eventMinutes: Number(minutes) })}
            options={[15, 30, 45, 60, 90, 120, 180].map((minutes) => ({
              value: String(minutes),
              label: `${minutes} minutes long`,
            }))}
          />
        </fieldset>
        <fieldset className="grid gap-2">
          <legend className="mb-2 font-head text-lg font-bold">What others see</legend>
          <label className="flex items-start gap-2">
            <input
              type="checkbox"
              checked={wish.showsBusy ?? false}
              onChange={(event) => set({ showsBusy: event.target.checked })}
              className="mt-0.5 size-4 accent-ink"
            />
            <span>
              People of my groups see when I am busy
              <span className="block text-[12px] text-cement-700">
                Only when, never with what: from all calendars you have, also private ones. They find times
                that suit you without asking.
              </span>
            </span>
          </label>
        </fieldset>
        <fieldset className="grid gap-3">
          <legend className="mb-2 font-head text-lg font-bold">By mail</legend>
          <label className="flex items-start gap-2.5">
            <input
              type="checkbox"
              checked={wish.remindsByMail}
              onChange={(event) => set({ remindsByMail: event.target.checked })}
              className="mt-0.5 size-4 accent-ink"
            />
            <span>
              Reminders come by mail too
              <span className="block text-[12px] text-cement-700">
                What you are reminded of is chosen for each calendar, in its “My look”.
              </span>
            </span>
          </label>
          <Choice
            label="What others changed"
            value={wish.digest ?? 'never'}
            onChange={(digest) => set({ digest })}
            options={[
              { value: 'never', label: 'is not written to me' },
              { value: 'daily', label: 'each day, when my usual hours begin' },
              { value: 'weekly', label: 'each week, on its first day' },
            ]}
            hint="In all calendars you have, as far as you see them; only where something changed."
          />
        </fieldset>
        <div className="flex items-center gap-3">
          <Button type="submit" look="main">
            Keep these
          </Button>
          <Link to="/" className="underline">
            Back to the wall
          </Link>
        </div>
      </form>
      <Guardianships />
      <Addresses />
    </main>
  )
}
