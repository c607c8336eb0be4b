import { CalendarDays } from 'lucide-react'
import { Popover } from 'radix-ui'
import { useState } from 'react'
import { fieldDateText, longDayText, monthText, weekdayText } from '../reader/dates'
import { useReader } from '../reader/person'
import { isoDay } from '../reader/preferences'
import { dateTyped } from '../reader/typed'
import { WrittenField } from './WrittenField'

interface DateFieldProps {
  label: string
  /** As "2026-03-11". */
  value: string
  onChange: (date: string) => void
  problem?: string
  hint?: string
}

/** A date as the reader writes it, typed or chosen from a month. */
export function DateField({ label, value, onChange, problem, hint }: DateFieldProps) {
  const { person, now } = useReader()
  const [open, setOpen] = useState(false)
  const today = Temporal.Instant.fromEpochMilliseconds(now())
    .toZonedDateTimeISO(person.zone)
    .toPlainDate()
    .toString()
  return (
    <WrittenField
      label={label}
      written={fieldDateText(value)}
      onWritten={(text) => {
        const date = dateTyped(text, today)
        if (date) onChange(date)
        return date !== undefined
      }}
      onStep={(by) => onChange(Temporal.PlainDate.from(value).add({ days: by }).toString())}
      expected="Type a date, as 14 may, fri, week 20, 2026-05-14 or +3w."
      problem={problem}
      hint={hint}
    >
      <Popover.Root open={open} onOpenChange={setOpen}>
        <Popover.Trigger
          aria-label={`${label}: choose from a month`}
          className="absolute top-1 right-1 grid size-6 place-items-center rounded-control bg-surface text-cement-700 hover:bg-cement-200"
        >
          <CalendarDays size={14} aria-hidden="true" />
        </Popover.Trigger>
        <Popover.Portal>
          <Popover.Content
            align="end"
            sideOffset={4}
            collisionPadding={8}
            className="z-40 rounded-control border border-cement-300 bg-surface p-2 shadow-lg"
          >
            <Month
              chosen={value}
              today={today}
              onChoose={(date) => {
                onChange(date)
                setOpen(false)
              }}
            />
          </Popover.Content>
        </Popover.Portal>
      </Popover.Root>
    </WrittenField>
  )
}

/** One month in whole weeks, with a way to those beside it. */
function Month({
  chosen,
  today,
  onChoose,
}: {
  chosen: string
  today: string
  onChoose: (date: string) => void
}) {
  const { person } = useReader()
  const firstDay = isoDay(person.preferences.firstDay)
  const [month, setMonth] = useState(() => Temporal.PlainDate.from(chosen).with({ day: 1 }))
  const start = month.subtract({ days: (month.dayOfWeek - firstDay + 7) % 7 })
  const days = Array.from({ length: 42 }, (_, index) => start.add({ days: index }))
  return (
    <div className="grid gap-1">
      <div className="flex items-center">
        <MonthStep words="Month before" sign="‹" onPress={() => setMonth(month.subtract({ months: 1 }))} />
        <h3 className="flex-1 text-center text-[13px]">{monthText(month.toString())}</h3>
        <MonthStep words="Month after" sign="›" onPress={() => setMonth(month.add({ months: 1 }))} />
      </div>
      <div className="grid grid-cols-7 text-center text-[12px]">
        {days.slice(0, 7).map((day) => (
          <span key={day.dayOfWeek} className="w-8 text-[11px] text-cement-700">
            {weekdayText(day.toString())}
          </span>
        ))}
        {days.map((day) => {
          const date = day.toString()
          return (
            <button
              key={date}
              type="button"
              aria-label={longDayText(date)}
              aria-pressed={date === chosen}
              data-today={date === today}
              data-other={day.month !== month.month}
              onClick={() => onChoose(date)}
              className="grid size-8 place-items-center rounded-control hover:bg-cement-200 aria-pressed:bg-ink aria-pressed:text-on-ink data-[other=true]:text-cement-600 data-[today=true]:font-bold data-[today=true]:underline"
            >
              {day.day}
            </button>
          )
        })}
      </div>
    </div>
  )
}

const MonthStep = ({ words, sign, onPress }: { words: string; sign: string; onPress: () => void }) => (
  <button
    type="button"
    aria-label={words}
    onClick={onPress}
    className="grid size-7 place-items-center rounded-control hover:bg-cement-200"
  >
    {sign}
  </button>
)
