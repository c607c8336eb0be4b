import { useQuery } from '@tanstack/react-query'
import { type FormEvent, useId, useState } from 'react'
import type { Schema } from '../../api/client'
import { fieldProblem, sentenceOf } from '../../api/problem'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { MarkSign, marks } from '../../ui/MarkSign'
import { TextArea } from '../../ui/TextArea'
import { TextField } from '../../ui/TextField'
import { defaultChoices } from '../access/ladder'
import { zonesQuery } from './calendarQueries'
import { hues, purposes } from './looks'

export type CalendarSettings = Schema['CalendarsSettingsBody']

interface CalendarFormProps {
  start: CalendarSettings
  isNew: boolean
  groupName: string
  onSave: (settings: CalendarSettings) => Promise<void>
}

/** The settings of a calendar, new or being changed. */
export function CalendarForm({ start, isNew, groupName, onSave }: CalendarFormProps) {
  const zones = useQuery(zonesQuery)
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
      <LookFields settings={settings} onChange={set} />
      <Choice
        label="Time zone"
        value={settings.zone}
        onChange={(zone) => set({ zone })}
        options={zoneOptions}
        problem={fieldProblem(error, 'zone')}
      />
      <Choice
        label="What it is for"
        value={settings.purpose}
        onChange={(purpose) => set({ purpose })}
        options={purposes}
      />
      <Choice
        label={`Every member of ${groupName} gets`}
        value={settings.groupDefault}
        onChange={(groupDefault) => set({ groupDefault })}
        options={defaultChoices}
        problem={fieldProblem(error, 'groupDefault')}
      />
      {error !== null && (
        <p role="alert" className="text-clash">
          {sentenceOf(error)}
        </p>
      )}
      <Button type="submit" look="main" wide disabled={busy}>
        {isNew ? 'Make the calendar' : 'Save settings'}
      </Button>
    </form>
  )
}

/** Colour and mark, with what they look like. */
function LookFields({
  settings,
  onChange,
}: {
  settings: CalendarSettings
  onChange: (part: Partial<CalendarSettings>) => void
}) {
  const name = useId()
  return (
    <>
      <fieldset>
        <legend className="mb-1 text-[12px] text-cement-700">Colour</legend>
        <div className="flex flex-wrap gap-1">
          {hues.map((hue) => (
            <label
              key={hue.value}
              data-hue={hue.value}
              title={hue.label}
              className="relative size-9 has-checked:outline-2 has-checked:outline-offset-1 has-checked:outline-ink"
            >
              <input
                type="radio"
                name={`${name}-hue`}
                aria-label={hue.label}
                checked={settings.hue === hue.value}
                onChange={() => onChange({ hue: hue.value })}
                className="absolute inset-0 cursor-pointer opacity-0"
              />
              <span className="pointer-events-none block h-full border-4 border-layer-edge bg-layer-tint" />
            </label>
          ))}
        </div>
      </fieldset>
      <fieldset data-hue={settings.hue}>
        <legend className="mb-1 text-[12px] text-cement-700">Mark</legend>
        <div className="flex flex-wrap gap-1">
          {marks.map((mark) => (
            <label
              key={mark}
              title={mark}
              className="relative grid size-9 place-items-center border border-cement-300 text-layer-edge has-checked:border-layer-edge has-checked:bg-layer-edge has-checked:text-surface has-focus-visible:outline-2 has-focus-visible:outline-focus"
            >
              <input
                type="radio"
                name={`${name}-mark`}
                aria-label={mark}
                checked={settings.mark === mark}
                onChange={() => onChange({ mark })}
                className="absolute inset-0 cursor-pointer opacity-0"
              />
              <MarkSign mark={mark} size={16} />
            </label>
          ))}
        </div>
      </fieldset>
    </>
  )
}
