import type { Schema } from '../../api/client'
import type { Layer } from '../../model/bricks'
import { Check } from '../../ui/Check'
import { Choice } from '../../ui/Choice'
import { DateField } from '../../ui/DateField'
import { MarkBlock } from '../../ui/MarkSign'
import { PeriodFields } from '../../ui/PeriodFields'
import { TextField } from '../../ui/TextField'
import { beginOf, kinds, type PaperWish } from './paperWish'

interface PaperFieldsProps {
  wish: PaperWish
  groups: readonly Schema['GroupsGroupBody'][]
  layers: readonly Layer[]
  onChange: (part: Partial<PaperWish>) => void
}

/** What is printed, of which days, on which paper, and what goes on it. */
export function PaperFields({ wish, groups, layers, onChange }: PaperFieldsProps) {
  const kind = kinds.find((one) => one.value === wish.what)
  const hasEvents = wish.what !== 'absences' && wish.what !== 'access'
  return (
    <form className="grid gap-4" onSubmit={(event) => event.preventDefault()}>
      <div className="grid grid-cols-2 gap-2">
        <Choice
          label="What"
          value={wish.what}
          onChange={(what) => onChange({ what, ...beginOf(what) })}
          options={kinds}
        />
        <Choice
          label="Of"
          value={wish.group}
          onChange={(group) => onChange({ group, without: [] })}
          options={groups.map((one) => ({ value: one.id, label: one.name }))}
        />
      </div>
      {wish.what === 'day' ? (
        <DateField label="Day" value={wish.from} onChange={(from) => onChange({ from, to: from })} />
      ) : (
        wish.what !== 'access' && (
          <PeriodFields value={wish} offered={kind?.period ?? []} onChange={onChange} />
        )
      )}
      <div className="grid grid-cols-2 gap-2">
        <Choice
          label="Paper"
          value={wish.size}
          onChange={(size) => onChange({ size })}
          options={[
            { value: 'a4', label: 'A4' },
            { value: 'letter', label: 'Letter' },
          ]}
        />
        <Choice
          label="Turned"
          value={wish.across ? 'across' : 'upright'}
          onChange={(turned) => onChange({ across: turned === 'across' })}
          options={[
            { value: 'upright', label: 'Upright' },
            { value: 'across', label: 'Across' },
          ]}
        />
      </div>
      <TextField
        label="Heading"
        value={wish.title}
        placeholder={groups.find((one) => one.id === wish.group)?.name ?? ''}
        onChange={(title) => onChange({ title: title.slice(0, 80) })}
      />
      {hasEvents && (
        <fieldset className="grid gap-1.5">
          <legend className="mb-1 font-head text-base font-bold">Beside times and titles</legend>
          <Check label="places" checked={wish.places} onChange={(places) => onChange({ places })} />
          <Check label="who is named" checked={wish.people} onChange={(people) => onChange({ people })} />
          <Check label="notes" checked={wish.notes} onChange={(notes) => onChange({ notes })} />
        </fieldset>
      )}
      {hasEvents && layers.length > 1 && (
        <fieldset className="grid gap-1.5">
          <legend className="mb-1 font-head text-base font-bold">Calendars</legend>
          {layers.map((layer) => (
            <Check
              key={layer.calendarId}
              label={
                <span data-hue={layer.hue} className="written flex items-center gap-1.5">
                  <MarkBlock mark={layer.mark} size={14} />
                  {layer.name}
                </span>
              }
              checked={!wish.without.includes(layer.calendarId)}
              // One of them stays: a sheet of none is no sheet.
              disabled={wish.without.length === layers.length - 1 && !wish.without.includes(layer.calendarId)}
              onChange={(isOn) =>
                onChange({
                  without: isOn
                    ? wish.without.filter((id) => id !== layer.calendarId)
                    : [...wish.without, layer.calendarId],
                })
              }
            />
          ))}
        </fieldset>
      )}
    </form>
  )
}
