import { useState } from 'react'
import { dateOf } from '../../model/times'
import { clockText, longDayText } from '../../reader/dates'
import { Button } from '../../ui/Button'
import { TextField } from '../../ui/TextField'
import type { AskedWhich, Suiting } from './proposalQueries'

interface SuitsFormProps {
  asked: AskedWhich
  isBusy: boolean
  onSay: (said: { at: string; suits: Suiting }[], comment: string) => void
}

const choices: readonly { value: Suiting; label: string }[] = [
  { value: 'suits', label: 'Suits' },
  { value: 'wouldDo', label: 'Would do' },
  { value: 'doesNotSuit', label: 'Does not suit' },
]

/** Which of several times suit: what each one is to them, and a word with it. Said together. */
export function SuitsForm({ asked, isBusy, onSay }: SuitsFormProps) {
  const [said, setSaid] = useState<ReadonlyMap<string, Suiting>>(
    () => new Map(asked.times.flatMap((time) => (time.said ? [[time.at, time.said] as const] : []))),
  )
  const [words, setWords] = useState(asked.comment)
  const missing = asked.times.length - said.size
  return (
    <form
      className="grid gap-3"
      onSubmit={(event) => {
        event.preventDefault()
        onSay(
          [...said].map(([at, value]) => ({ at, suits: value })),
          words,
        )
      }}
    >
      <ol className="grid gap-px border-y border-cement-300 bg-cement-300">
        {asked.times.map((time) => (
          <li key={time.at} className="bg-surface py-2">
            <fieldset className="flex flex-wrap items-center justify-between gap-x-4 gap-y-1.5">
              <legend className="sr-only">{timeText(time)}</legend>
              <span aria-hidden="true">
                <span className="font-bold">{timeText(time)}</span>
                {time.presence && presenceText[time.presence] && (
                  <span className="block text-[12px] text-cement-700">{presenceText[time.presence]}</span>
                )}
              </span>
              <span className="flex">
                {choices.map((choice) => (
                  <label
                    key={choice.value}
                    className="suiting relative cursor-pointer border border-cement-500 px-3 py-1.5 not-first:-ml-px first:rounded-l-control last:rounded-r-control has-focus-visible:outline-2"
                  >
                    <input
                      type="radio"
                      name={`${asked.id}/${asked.whose}/${time.at}`}
                      checked={said.get(time.at) === choice.value}
                      onChange={() => setSaid(new Map(said).set(time.at, choice.value))}
                      className="sr-only"
                    />
                    {choice.label}
                  </label>
                ))}
              </span>
            </fieldset>
          </li>
        ))}
      </ol>
      <TextField
        label="A word with it"
        value={words}
        onChange={setWords}
        placeholder="The later the better"
        autoComplete="off"
      />
      <div className="flex items-center gap-3">
        <Button look="main" type="submit" disabled={isBusy || said.size === 0}>
          Answer
        </Button>
        {said.size > 0 && missing > 0 && (
          <span className="text-[13px] text-cement-700">
            {missing === 1 ? 'One time is' : `${missing} times are`} without an answer yet.
          </span>
        )}
      </div>
    </form>
  )
}

/** What the calendars of who is asked say of a time; nothing where they are free. */
const presenceText: Record<NonNullable<AskedWhich['times'][number]['presence']>, string | null> = {
  free: null,
  outsideHours: 'outside usual hours',
  tentative: 'perhaps something else then',
  busy: 'something else is in the calendar then',
  away: 'away then',
}

/** "Thu 12 Mar, 10:00 – 11:00", or with both days where it goes over midnight. */
export const timeText = ({ start, end }: { start: string; end: string }): string =>
  `${longDayText(start)}, ${clockText(start)} – ${dateOf(start) === dateOf(end) ? '' : `${longDayText(end)}, `}${clockText(end)}`
