import { fieldProblem } from '../../api/problem'
import { Alert } from '../../ui/Alert'
import { Check } from '../../ui/Check'
import { Choice } from '../../ui/Choice'
import { hues } from '../../ui/looks'
import { type BoardView, viewNames } from './noticeboardQueries'
import type { SettingsProps } from './settingsProps'

const all: readonly BoardView[] = ['next', 'month', 'week']

/** Its views, its light, and what visitors are offered. */
export function LookPart({ wish, error, onChange }: SettingsProps) {
  const first = wish.views[0] ?? 'next'
  const withView = (view: BoardView, isIn: boolean) =>
    onChange({ views: isIn ? [...wish.views, view] : wish.views.filter((one) => one !== view) })
  return (
    <fieldset className="grid gap-2">
      <legend className="mb-1 font-head text-lg font-bold">How it looks</legend>
      <Choice
        label="Opens with"
        value={first}
        onChange={(view) => onChange({ views: [view, ...wish.views.filter((one) => one !== view)] })}
        options={all.map((view) => ({ value: view, label: viewNames[view] }))}
      />
      {all
        .filter((view) => view !== first)
        .map((view) => (
          <Check
            key={view}
            label={`Also ${viewNames[view]}`}
            checked={wish.views.includes(view)}
            onChange={(checked) => withView(view, checked)}
          />
        ))}
      {fieldProblem(error, 'views') && <Alert>{fieldProblem(error, 'views')}</Alert>}
      <div className="grid grid-cols-2 gap-2">
        <Choice
          label="Light"
          value={wish.theme}
          onChange={(theme) => onChange({ theme })}
          options={[
            { value: 'system', label: 'As the visitor’s' },
            { value: 'light', label: 'Light' },
            { value: 'dark', label: 'Dark' },
          ]}
        />
        <Choice
          label="Accent"
          value={wish.accent}
          onChange={(accent) => onChange({ accent })}
          options={hues.map((hue) => ({ value: hue.value, label: hue.label }))}
        />
      </div>
      <Check
        label="Name the time zone"
        hint="It is named anyway to whoever is elsewhere."
        checked={wish.showsZone}
        onChange={(showsZone) => onChange({ showsZone })}
      />
      <p className="mt-2 text-[12px] text-cement-700">Visitors may</p>
      <Check
        label="take one event into their calendar"
        checked={wish.offersEvents}
        onChange={(offersEvents) => onChange({ offersEvents })}
      />
      <Check
        label="keep all of it in their own calendar program"
        checked={wish.offersFeed}
        onChange={(offersFeed) => onChange({ offersFeed })}
      />
      <Check
        label="print it"
        checked={wish.offersPrint}
        onChange={(offersPrint) => onChange({ offersPrint })}
      />
    </fieldset>
  )
}
