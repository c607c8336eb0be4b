import { useQuery } from '@tanstack/react-query'
import { fieldProblem } from '../../api/problem'
import { zonesQuery } from '../../model/calendarQueries'
import { shelfQuery } from '../../model/shelfQuery'
import { languages } from '../../reader/languages'
import { asClock, asMinutes, type Preferences, weekdays } from '../../reader/preferences'
import { Check } from '../../ui/Check'
import { Choice } from '../../ui/Choice'
import { ClockField } from '../../ui/ClockField'

interface PreferenceFieldsProps {
  wish: Preferences
  error: unknown
  onChange: (part: Partial<Preferences>) => void
}

/** On which clock, and in which language of dates. */
export function ClockFields({ wish, error, onChange }: PreferenceFieldsProps) {
  const zones = useQuery(zonesQuery)
  const zoneOptions = (zones.data ?? [wish.zone]).map((zone) => ({
    value: zone,
    label: zone.replaceAll('_', ' '),
  }))
  return (
    <fieldset className="grid grid-cols-2 gap-3 max-sm:grid-cols-1">
      <legend className="mb-2 font-head text-lg font-bold">Clock</legend>
      <Choice
        label="Your time zone"
        value={wish.zone}
        onChange={(zone) => onChange({ zone })}
        options={zoneOptions}
        problem={fieldProblem(error, 'zone')}
        hint="The wall shows everything on this clock."
      />
      <Choice
        label="A second zone along the hours"
        value={wish.secondZone ?? ''}
        onChange={(zone) => onChange({ secondZone: zone === '' ? null : zone })}
        options={[{ value: '', label: 'None' }, ...zoneOptions]}
        problem={fieldProblem(error, 'secondZone')}
      />
      <Choice
        label="Hours"
        value={wish.clock}
        onChange={(clock) => onChange({ clock })}
        options={[
          { value: 'hours24', label: '19:00' },
          { value: 'hours12', label: '7:00 pm' },
        ]}
      />
      <Choice
        label="Language of dates"
        value={wish.locale}
        onChange={(locale) => onChange({ locale })}
        options={
          languages.some((one) => one.value === wish.locale)
            ? languages
            : [...languages, { value: wish.locale, label: wish.locale }]
        }
        problem={fieldProblem(error, 'locale')}
      />
    </fieldset>
  )
}

/** When a week and a day begin. */
export function WeekFields({ wish, error, onChange }: PreferenceFieldsProps) {
  return (
    <fieldset className="grid grid-cols-2 gap-3 max-sm:grid-cols-1">
      <legend className="mb-2 font-head text-lg font-bold">Week and day</legend>
      <Choice
        label="Weeks begin on"
        value={wish.firstDay}
        onChange={(firstDay) => onChange({ firstDay })}
        options={weekdays.map((day) => ({
          value: day,
          label: `${day[0]?.toUpperCase()}${day.slice(1)}`,
        }))}
      />
      <div className="grid grid-cols-2 gap-3">
        <ClockField
          label="Usual hours from"
          value={asClock(wish.dayBegins)}
          onChange={(clock) => onChange({ dayBegins: asMinutes(clock) })}
        />
        <ClockField
          label="to"
          value={asClock(wish.dayEnds)}
          onChange={(clock) => onChange({ dayEnds: asMinutes(clock) })}
          problem={fieldProblem(error, 'dayEnds')}
        />
      </div>
    </fieldset>
  )
}

/** What new events begin with. */
export function NewEventFields({ wish, onChange }: PreferenceFieldsProps) {
  const shelf = useQuery(shelfQuery)
  return (
    <fieldset className="grid grid-cols-2 gap-3 max-sm:grid-cols-1">
      <legend className="mb-2 font-head text-lg font-bold">New events</legend>
      <Choice
        label="Go to"
        value={wish.eventCalendar ?? ''}
        onChange={(id) => onChange({ eventCalendar: id === '' ? null : id })}
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
        onChange={(minutes) => onChange({ eventMinutes: Number(minutes) })}
        options={[15, 30, 45, 60, 90, 120, 180].map((minutes) => ({
          value: String(minutes),
          label: `${minutes} minutes long`,
        }))}
      />
    </fieldset>
  )
}

/** What others see of one. */
export function OthersFields({ wish, onChange }: PreferenceFieldsProps) {
  return (
    <fieldset className="grid gap-2">
      <legend className="mb-2 font-head text-lg font-bold">What others see</legend>
      <Check
        label="People of my groups see when I am busy"
        hint="Only when, never with what: from all calendars you have, also private ones. They find times that suit you without asking."
        checked={wish.showsBusy ?? false}
        onChange={(checked) => onChange({ showsBusy: checked })}
      />
    </fieldset>
  )
}

/** What comes by mail. */
export function MailFields({ wish, onChange }: PreferenceFieldsProps) {
  return (
    <fieldset className="grid gap-3">
      <legend className="mb-2 font-head text-lg font-bold">By mail</legend>
      <Check
        label="Reminders come by mail too"
        hint="What you are reminded of is chosen for each calendar, in its “My look”."
        checked={wish.remindsByMail}
        onChange={(checked) => onChange({ remindsByMail: checked })}
      />
      <Choice
        label="The digest of what others changed"
        value={wish.digest ?? 'never'}
        onChange={(digest) => onChange({ digest })}
        options={[
          { value: 'never', label: 'is not written to me' },
          { value: 'daily', label: 'each day, when my usual hours begin' },
          { value: 'weekly', label: 'each week, on its first day' },
        ]}
        hint="What the table sends to it, and what changed in all calendars you have, as far as you see them; only where something did."
      />
    </fieldset>
  )
}
