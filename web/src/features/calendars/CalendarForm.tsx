import { useQuery } from '@tanstack/react-query'
import { type FormEvent, useState } from 'react'
import type { Schema } from '../../api/client'
import { fieldProblem } from '../../api/problem'
import { zonesQuery } from '../../model/calendarQueries'
import { groupQueries } from '../../model/groupQueries'
import { defaultChoices, reaches } from '../../model/ladder'
import { Button } from '../../ui/Button'
import { Check } from '../../ui/Check'
import { Choice } from '../../ui/Choice'
import { FormProblem } from '../../ui/FormProblem'
import { LookFields } from '../../ui/LookFields'
import { purposes, takesChoices } from '../../ui/looks'
import { TextArea } from '../../ui/TextArea'
import { TextField } from '../../ui/TextField'
import { KindFields } from './KindFields'

export type CalendarSettings = Schema['CalendarsSettingsBody']

interface CalendarFormProps {
  start: CalendarSettings
  isNew: boolean
  /** Whether its events come from the web: what is asked of those that are made here is left out. */
  isFromWeb?: boolean
  groupName: string
  /** What every member begins with for a purpose, where that follows from the sort of the group. */
  defaultOf?: (purpose: CalendarSettings['purpose']) => Pick<CalendarSettings, 'groupDefault'>
  onSave: (settings: CalendarSettings) => Promise<void>
}

/** The settings of a calendar, new or being changed. */
export function CalendarForm({
  start,
  isNew,
  isFromWeb = false,
  groupName,
  defaultOf,
  onSave,
}: CalendarFormProps) {
  const zones = useQuery(zonesQuery)
  const members = useQuery({ ...groupQueries.members(start.groupId), retry: false })
  const [settings, setSettings] = useState(start)
  const [error, setError] = useState<unknown>(null)
  const [busy, setBusy] = useState(false)
  const set = (part: Partial<CalendarSettings>) => setSettings({ ...settings, ...part })
  const submit = (event: FormEvent) => {
    event.preventDefault()
    setBusy(true)
    onSave(settings).catch((bad: unknown) => {
      setError(bad)
      setBusy(false)
    })
  }
  const zoneOptions = (zones.data ?? [settings.zone]).map((zone) => ({
    value: zone,
    label: zone.replaceAll('_', ' '),
  }))
  return (
    <form onSubmit={submit} className="grid gap-3">
      <TextField
        label="Name"
        value={settings.name}
        onChange={(name) => set({ name })}
        problem={fieldProblem(error, 'name')}
        autoFocus={isNew}
        required
      />
      <TextArea
        label="Description"
        rows={2}
        value={settings.description ?? ''}
        onChange={(description) => set({ description })}
        problem={fieldProblem(error, 'description')}
      />
      <LookFields look={settings} onChange={set} />
      <Choice
        label="Time zone"
        value={settings.zone}
        onChange={(zone) => set({ zone })}
        options={zoneOptions}
        problem={fieldProblem(error, 'zone')}
      />
      {!isFromWeb && (
        <Choice
          label="What it is for"
          value={settings.purpose}
          onChange={(purpose) => set({ purpose, ...defaultOf?.(purpose) })}
          options={purposes}
        />
      )}
      {settings.purpose === 'place' && (
        <Check
          label="Takes one booking at a time"
          hint="A booking that overlaps another is refused, also when two people book at once."
          checked={settings.oneAtATime}
          onChange={(checked) => set({ oneAtATime: checked })}
        />
      )}
      {settings.purpose === 'away' && (
        <Check
          label="Those who coordinate it agree to each absence"
          hint="What others enter is proposed, and counts as perhaps until somebody agrees in their inbox."
          checked={settings.agreed}
          onChange={(checked) => set({ agreed: checked })}
        />
      )}
      <Choice
        label="Whose time its events take"
        value={settings.takes ?? 'named'}
        onChange={(takes) => set({ takes, person: takes === 'person' ? settings.person : null })}
        options={isFromWeb ? takesChoices.filter((one) => one.value !== 'named') : takesChoices}
      />
      {settings.takes === 'person' && (
        <Choice
          label="Whose"
          value={settings.person ?? ''}
          onChange={(person) => set({ person: person === '' ? null : person })}
          options={[
            { value: '', label: 'Choose somebody' },
            ...(members.data ?? []).map((one) => ({ value: one.personId, label: one.name })),
          ]}
          problem={fieldProblem(error, 'person')}
        />
      )}
      {!isFromWeb && (
        <KindFields
          kinds={settings.kinds ?? []}
          hue={settings.hue}
          onChange={(kinds) => set({ kinds })}
          problem={fieldProblem(error, 'kinds')}
        />
      )}
      <Choice
        label={`Every member of ${groupName} gets`}
        value={settings.groupDefault}
        onChange={(groupDefault) => set({ groupDefault })}
        options={isFromWeb ? defaultChoices.filter((one) => !reaches(one.value, 'add')) : defaultChoices}
        problem={fieldProblem(error, 'groupDefault')}
      />
      <FormProblem
        error={error}
        fields={['name', 'description', 'zone', 'person', 'kinds', 'groupDefault']}
      />
      <Button type="submit" look="main" wide disabled={busy}>
        {isNew ? 'Make the calendar' : 'Save settings'}
      </Button>
    </form>
  )
}
