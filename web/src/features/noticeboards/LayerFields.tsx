import { fieldProblem } from '../../api/problem'
import type { Layer } from '../../model/bricks'
import { Alert } from '../../ui/Alert'
import { Check } from '../../ui/Check'
import { Choice } from '../../ui/Choice'
import { MarkSign } from '../../ui/MarkSign'
import { Note } from '../../ui/Note'
import type { SettingsProps } from './settingsProps'

const steps = [
  { value: 'none', label: 'Not on it' },
  { value: 'times', label: 'Times only' },
  { value: 'outline', label: 'Outline: titles and places' },
  { value: 'view', label: 'View: notes as well' },
] as const

/** Which calendars are on it, and how much of each. Only those that one coordinates can be. */
export function LayerFields({
  wish,
  error,
  onChange,
  layers,
  groupId,
}: SettingsProps & { layers: readonly Layer[]; groupId: string }) {
  const mine = layers
    .filter((layer) => layer.may.coordinate)
    .toSorted((a, b) => Number(b.groupId === groupId) - Number(a.groupId === groupId))
  const lost = wish.layers.filter((layer) => !mine.some((one) => one.calendarId === layer.calendarId))
  const stepOf = (calendarId: string) => {
    const role = wish.layers.find((layer) => layer.calendarId === calendarId)?.role
    return role === 'times' || role === 'outline' || role === 'view' ? role : 'none'
  }
  const put = (calendarId: string, step: (typeof steps)[number]['value']) => {
    const isThere = wish.layers.some((layer) => layer.calendarId === calendarId)
    onChange({
      layers:
        step === 'none'
          ? wish.layers.filter((layer) => layer.calendarId !== calendarId)
          : isThere
            ? wish.layers.map((layer) =>
                layer.calendarId === calendarId ? { calendarId, role: step } : layer,
              )
            : [...wish.layers, { calendarId, role: step }],
    })
  }
  return (
    <fieldset className="grid gap-2">
      <legend className="mb-1 font-head text-lg font-bold">What is on it</legend>
      {mine.length === 0 && (
        <Note>You coordinate no calendar. Only its coordinators give it to the world.</Note>
      )}
      {mine.map((layer) => (
        <div key={layer.calendarId} data-hue={layer.calendar.hue} className="flex items-end gap-2">
          <span className="mb-2 text-layer-edge">
            <MarkSign mark={layer.calendar.mark} size={14} />
          </span>
          <div className="min-w-0 flex-1">
            <Choice
              label={layer.calendar.name}
              value={stepOf(layer.calendarId)}
              onChange={(step) => put(layer.calendarId, step)}
              options={steps}
            />
          </div>
        </div>
      ))}
      {lost.length > 0 && (
        <Check
          label="Keep calendars on it that you do not coordinate any more"
          hint="It stays closed as long as they are."
          checked
          onChange={() => onChange({ layers: wish.layers.filter((layer) => !lost.includes(layer)) })}
        />
      )}
      {fieldProblem(error, 'layers') && <Alert>{fieldProblem(error, 'layers')}</Alert>}
      <Check
        label="Places"
        checked={wish.showsPlaces}
        onChange={(showsPlaces) => onChange({ showsPlaces })}
      />
      <Check
        label="Who is named"
        hint="At View. Think of children first."
        checked={wish.showsPeople}
        onChange={(showsPeople) => onChange({ showsPeople })}
      />
      <Choice
        label="How far ahead"
        value={String(wish.daysAhead)}
        onChange={(days) => onChange({ daysAhead: Number(days) })}
        options={[
          ...new Map(
            [14, 28, 56, 91, 182, 364, wish.daysAhead].map((days) => [days, `${Math.round(days / 7)} weeks`]),
          ),
        ]
          .toSorted(([a], [b]) => a - b)
          .map(([days, label]) => ({ value: String(days), label }))}
        problem={fieldProblem(error, 'daysAhead')}
      />
    </fieldset>
  )
}
