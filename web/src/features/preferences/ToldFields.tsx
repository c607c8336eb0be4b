import type { Schema } from '../../api/client'
import { fieldProblem } from '../../api/problem'
import { asClock, asMinutes, type Preferences } from '../../reader/preferences'
import { Check } from '../../ui/Check'
import { ClockField } from '../../ui/ClockField'
import { inputLook } from '../../ui/TextField'

type Told = Schema['PreferencesBodyToldBody']

/** What can be told, in the order in which one looks for it. */
const rows: readonly { topic: keyof Told; name: string; what: string }[] = [
  {
    topic: 'asks',
    name: 'Questions',
    what: 'Somebody invites me, asks me for something, or whether I come.',
  },
  {
    topic: 'plan',
    name: 'My plan',
    what: 'I was put on an event or taken off, or it was moved or called off.',
  },
  { topic: 'handed', name: 'Handed to me', what: 'An event is mine to organize now, or I may change it.' },
  { topic: 'deleted', name: 'Deleted', what: 'A calendar I have or an event I made went to the bin.' },
  { topic: 'calendars', name: 'New calendars', what: 'A calendar came to a group of mine.' },
  { topic: 'access', name: 'What I may do', what: 'It was raised, lowered or ended, also by its date.' },
  { topic: 'answers', name: 'Answers', what: 'Somebody answered what I asked.' },
  { topic: 'keeping', name: 'What I keep', what: 'Who came to my groups or left them; my noticeboards.' },
]

const mailWays: readonly { value: Told['plan']['mail']; label: string }[] = [
  { value: 'none', label: 'No mail' },
  { value: 'atOnce', label: 'At once' },
  { value: 'digest', label: 'In the digest' },
]

interface ToldFieldsProps {
  wish: Preferences
  error: unknown
  onChange: (part: Partial<Preferences>) => void
}

/** The table of what is told to one, and in which ways; and when not. */
export function ToldFields({ wish, error, onChange }: ToldFieldsProps) {
  const { told, quiet } = wish
  if (!told) return null
  const set = (topic: keyof Told, ways: Partial<Told['plan']>) =>
    onChange({ told: { ...told, [topic]: { ...told[topic], ...ways } } })
  const isInDigest = rows.some((row) => told[row.topic].mail === 'digest')
  return (
    <fieldset className="grid gap-3">
      <legend className="mb-2 font-head text-lg font-bold">What is told to me</legend>
      <table className="w-full border-y border-cement-300 text-left max-sm:block">
        <thead className="max-sm:hidden">
          <tr className="text-[12px] text-cement-700">
            <th scope="col" className="py-1 font-normal">
              What others did
            </th>
            <th scope="col" className="w-16 text-center font-normal">
              Inbox
            </th>
            <th scope="col" className="w-24 text-center font-normal">
              Open screen
            </th>
            <th scope="col" className="w-36 font-normal">
              By mail
            </th>
          </tr>
        </thead>
        <tbody className="max-sm:block">
          {rows.map(({ topic, name, what }) => (
            <tr
              key={topic}
              className="border-t border-cement-200 max-sm:grid max-sm:grid-cols-[auto_auto_1fr] max-sm:items-center max-sm:gap-x-4 max-sm:py-2"
            >
              <th scope="row" className="py-2 pr-3 font-normal max-sm:col-span-3 max-sm:py-0 max-sm:pb-1">
                <b>{name}</b>
                <span className="block text-[12px] text-cement-700">{what}</span>
              </th>
              <Cell
                word="Inbox"
                name={`${name}: inbox`}
                checked={told[topic].inbox}
                disabled={topic === 'asks'}
                onChange={(inbox) => set(topic, { inbox })}
              />
              <Cell
                word="Screen"
                name={`${name}: open screen`}
                checked={told[topic].screen}
                onChange={(screen) => set(topic, { screen })}
              />
              <td>
                <select
                  aria-label={`${name}: by mail`}
                  value={told[topic].mail}
                  onChange={(event) => {
                    const way = mailWays.find((one) => one.value === event.target.value)
                    if (way) set(topic, { mail: way.value })
                  }}
                  className={inputLook}
                >
                  {mailWays.map((way) => (
                    <option key={way.value} value={way.value}>
                      {way.label}
                    </option>
                  ))}
                </select>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {isInDigest && (wish.digest ?? 'never') === 'never' && (
        <p className="text-[12px] text-cement-700">
          The digest is not written to you so far: under “By mail” you choose how often it comes.
        </p>
      )}
      <Check
        label="Quiet hours"
        hint="In them no mail comes at once and nothing is laid over your screen; it comes when they end, as far as it still holds. Reminders come as you chose them."
        checked={quiet !== null && quiet !== undefined}
        onChange={(isQuiet) => onChange({ quiet: isQuiet ? { from: 20 * 60, to: 7 * 60 } : null })}
      />
      {quiet && (
        <div className="grid max-w-xs grid-cols-2 gap-3 pl-6">
          <ClockField
            label="From"
            value={asClock(quiet.from)}
            onChange={(clock) => onChange({ quiet: { ...quiet, from: asMinutes(clock) } })}
          />
          <ClockField
            label="to"
            value={asClock(quiet.to)}
            onChange={(clock) => onChange({ quiet: { ...quiet, to: asMinutes(clock) } })}
            problem={fieldProblem(error, 'quiet.to')}
          />
        </div>
      )}
    </fieldset>
  )
}

interface CellProps {
  /** Stands beside it where there is no head of a column. */
  word: string
  name: string
  checked: boolean
  disabled?: boolean
  onChange: (checked: boolean) => void
}

function Cell({ word, name, checked, disabled, onChange }: CellProps) {
  return (
    <td className="text-center">
      <label className="flex items-center justify-center gap-2">
        <input
          type="checkbox"
          aria-label={name}
          title={disabled ? 'What somebody asks stays in the inbox until it is answered.' : undefined}
          checked={checked}
          disabled={disabled}
          onChange={(event) => onChange(event.target.checked)}
          className="size-4 accent-ink"
        />
        <span aria-hidden="true" className="sm:hidden">
          {word}
        </span>
      </label>
    </td>
  )
}
