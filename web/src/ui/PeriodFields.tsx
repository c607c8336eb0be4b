import { type DayRange, inOrder, namedPeriods } from '../model/namedPeriods'
import { useReader } from '../reader/person'
import { isoDay } from '../reader/preferences'
import { useNow } from '../reader/useNow'
import { DateField } from './DateField'

interface PeriodFieldsProps {
  value: DayRange
  /** Which of the periods that have a name are offered; all where nothing is said. */
  offered?: readonly string[]
  problem?: string
  onChange: (range: DayRange) => void
}

/** From a day to a day, with those that have a name at hand. */
export function PeriodFields({ value, offered, problem, onChange }: PeriodFieldsProps) {
  const { preferences } = useReader().person
  const named = namedPeriods(useNow().slice(0, 10), isoDay(preferences.firstDay)).filter(
    (one) => offered?.includes(one.label) ?? true,
  )
  return (
    <fieldset className="grid gap-2">
      <legend className="sr-only">Period</legend>
      <div className="flex flex-wrap gap-1">
        {named.map(({ label, from, to }) => (
          <button
            key={label}
            type="button"
            aria-pressed={value.from === from && value.to === to}
            onClick={() => onChange({ from, to })}
            className="rounded-control border border-cement-300 px-2 py-0.5 text-[12px] aria-pressed:bg-ink aria-pressed:text-on-ink"
          >
            {label}
          </button>
        ))}
      </div>
      <div className="grid grid-cols-2 gap-2">
        <DateField
          label="From"
          value={value.from}
          onChange={(from) => onChange(inOrder({ from, to: value.to }, 'from'))}
        />
        <DateField
          label="To"
          value={value.to}
          problem={problem}
          onChange={(to) => onChange(inOrder({ from: value.from, to }, 'to'))}
        />
      </div>
    </fieldset>
  )
}
