import { useState } from 'react'
import { sentenceOf } from '../../api/problem'
import { whenText } from '../../model/whenText'
import { useReader } from '../../reader/person'
import { Alert } from '../../ui/Alert'
import { Button } from '../../ui/Button'
import { TextLink } from '../../ui/TextLink'
import { MomentFields } from './MomentFields'
import { type MomentPlace, writeMoment } from './momentPlace'
import type { MomentThing } from './momentQueries'
import { dayOf, daysTouched, useMoment } from './useMoment'

/** Brings a calendar back to how it was at a moment: first what that would do, then in one act that can be undone. */
export function MomentPart({ calendarId }: { calendarId: string }) {
  const { now } = useReader()
  /** The moment, as an instant; empty while none is looked at. */
  const [at, setAt] = useState('')
  if (at === '') {
    const dayBefore = () =>
      setAt(Temporal.Instant.fromEpochMilliseconds(now()).subtract({ hours: 24 }).round('minute').toString())
    return (
      <div className="mb-5">
        <Button onClick={dayBefore}>Bring it back to a moment</Button>
      </div>
    )
  }
  return <OpenMoment moment={{ calendarId, at }} onMoment={setAt} />
}

function OpenMoment({ moment, onMoment }: { moment: MomentPlace; onMoment: (at: string) => void }) {
  const { fates, error, isSame, stays, mayBringBack, bringBack } = useMoment(moment, () => onMoment(''))
  const [firstDay] = daysTouched(fates.flatMap(({ things }) => things))
  return (
    <section aria-label="Back to a moment" className="mb-6 grid gap-3 border-2 border-ink bg-surface p-4">
      <h2 className="text-lg">Back to a moment</h2>
      <div className="grid max-w-md grid-cols-2 gap-3">
        <MomentFields at={moment.at} onChange={onMoment} />
      </div>
      {error && <Alert>{sentenceOf(error)}</Alert>}
      {isSame && <p>Nothing has changed since then: everything is as it was.</p>}
      {fates.map(({ fate, count, things, words }) => (
        <div key={fate}>
          <h3 className="text-base">{words}</h3>
          <ul className="text-[13px]">
            {things.map((thing) => (
              <Thing key={thing.id} thing={thing} moment={moment} />
            ))}
            {count > things.length && <li className="text-cement-700">and {count - things.length} more</li>}
          </ul>
        </div>
      ))}
      {stays > 0 && (
        <p className="text-[13px] text-cement-700">
          {stays} stay as they are, in calendars that are not yours to take them from.
        </p>
      )}
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <Button look="main" disabled={!mayBringBack} onClick={bringBack}>
          Bring back to then
        </Button>
        <Button onClick={() => onMoment('')}>Leave it as it is</Button>
        {firstDay && <TextLink to={wallAddress(firstDay, moment)}>See it on the wall</TextLink>}
      </div>
    </section>
  )
}

const wallAddress = (day: string, moment: MomentPlace): string => `/week/${day}?moment=${writeMoment(moment)}`

function Thing({ thing, moment }: { thing: MomentThing; moment: MomentPlace }) {
  const time = thing.now ?? thing.then
  return (
    <li className="written">
      {time ? (
        <TextLink to={wallAddress(dayOf(time), moment)}>{thing.title || 'Untitled'}</TextLink>
      ) : (
        thing.title
      )}
      {thing.repeats && ' (series)'}
      <span className="text-cement-700">
        {' · '}
        {thing.then && thing.now && whenText(thing.then) !== whenText(thing.now)
          ? `${whenText(thing.now)} → ${whenText(thing.then)}`
          : time && whenText(time)}
      </span>
    </li>
  )
}
