import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Temporal } from 'temporal-polyfill'
import { sentenceOf } from '../../api/problem'
import { whenText } from '../../model/whenText'
import { momentText } from '../../reader/dates'
import { useReader } from '../../reader/person'
import { Alert } from '../../ui/Alert'
import { Button } from '../../ui/Button'
import { ClockField } from '../../ui/ClockField'
import { DateField } from '../../ui/DateField'
import { TextLink } from '../../ui/TextLink'
import { useAct } from '../../undo/useAct'
import { bringBackTo, type MomentFate, type MomentThing, momentQuery } from './momentQueries'

const heads: Record<MomentFate, (count: number) => string> = {
  comes: (count) => `${count} ${count === 1 ? 'comes' : 'come'} back`,
  goes: (count) => `${count} ${count === 1 ? 'goes' : 'go'} to the bin`,
  moves: (count) => `${count} ${count === 1 ? 'moves' : 'move'}`,
  changes: (count) => `${count} ${count === 1 ? 'is' : 'are'} as before at the same time`,
}

/** Brings a calendar back to how it was at a moment: first what that would do, then in one act that can be undone. */
export function MomentPart({ calendarId }: { calendarId: string }) {
  const { person, now } = useReader()
  /** The moment, as an instant; empty while none is looked at. */
  const [at, setAt] = useState('')
  const preview = useQuery(momentQuery(calendarId, at))
  const back = useAct({
    run: (moment: string, set) => bringBackTo(calendarId, moment, set),
    say: ({ returned }, moment) =>
      `${returned === 1 ? '1 event is' : `${returned} events are`} as on ${momentText(moment)}.`,
    freshen: 'all',
    onDone: () => setAt(''),
  })
  if (at === '') {
    const dayBefore = () =>
      setAt(Temporal.Instant.fromEpochMilliseconds(now()).subtract({ hours: 24 }).round('minute').toString())
    return (
      <div className="mb-5">
        <Button onClick={dayBefore}>Bring it back to a moment</Button>
      </div>
    )
  }
  const local = Temporal.Instant.from(at).toZonedDateTimeISO(person.zone).toPlainDateTime()
  const choose = (next: Temporal.PlainDateTime) =>
    setAt(next.toZonedDateTime(person.zone).toInstant().toString())
  const fates = preview.data?.fates ?? []
  return (
    <section aria-label="Back to a moment" className="mb-6 grid gap-3 border-2 border-ink bg-surface p-4">
      <h2 className="text-lg">Back to a moment</h2>
      <div className="grid max-w-md grid-cols-2 gap-3">
        <DateField
          label="Day"
          value={local.toPlainDate().toString()}
          onChange={(day) => choose(Temporal.PlainDate.from(day).toPlainDateTime(local.toPlainTime()))}
        />
        <ClockField
          label="Hour"
          value={local.toPlainTime().toString().slice(0, 5)}
          onChange={(clock) => choose(local.toPlainDate().toPlainDateTime(Temporal.PlainTime.from(clock)))}
        />
      </div>
      {preview.isError && <Alert>{sentenceOf(preview.error)}</Alert>}
      {preview.data && fates.length === 0 && <p>Nothing has changed since then: everything is as it was.</p>}
      {fates.map(({ fate, count, things }) => (
        <div key={fate}>
          <h3 className="text-base">{heads[fate](count)}</h3>
          <ul className="text-[13px]">
            {things.map((thing) => (
              <Thing key={thing.id} thing={thing} />
            ))}
            {count > things.length && <li className="text-cement-700">and {count - things.length} more</li>}
          </ul>
        </div>
      ))}
      {preview.data && preview.data.stays > 0 && (
        <p className="text-[13px] text-cement-700">
          {preview.data.stays} stay as they are, in calendars that are not yours to take them from.
        </p>
      )}
      <div className="flex gap-2">
        <Button
          look="main"
          disabled={fates.length === 0 || back.isPending || preview.isFetching}
          onClick={() => back.mutate(at)}
        >
          Bring back to then
        </Button>
        <Button onClick={() => setAt('')}>Leave it as it is</Button>
      </div>
    </section>
  )
}

function Thing({ thing }: { thing: MomentThing }) {
  const day = thing.now ?? thing.then
  const first = day && (day.form === 'days' ? day.first : day.start.slice(0, 10))
  return (
    <li className="written">
      {first ? <TextLink to={`/week/${first}`}>{thing.title || 'Untitled'}</TextLink> : thing.title}
      {thing.repeats && ' (series)'}
      <span className="text-cement-700">
        {' · '}
        {thing.then && thing.now && whenText(thing.then) !== whenText(thing.now)
          ? `${whenText(thing.now)} → ${whenText(thing.then)}`
          : day && whenText(day)}
      </span>
    </li>
  )
}
