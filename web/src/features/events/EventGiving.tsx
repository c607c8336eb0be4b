import { useState } from 'react'
import type { Schema } from '../../api/client'
import { fieldProblem, sentenceOf } from '../../api/problem'
import { type Layer, titleOf } from '../../model/bricks'
import type { EventDraft } from '../../model/eventDraft'
import type { Role } from '../../model/ladder'
import { putLink } from '../../model/linkQueries'
import { Alert } from '../../ui/Alert'
import { Button } from '../../ui/Button'
import { Check } from '../../ui/Check'
import { Choice } from '../../ui/Choice'
import { useAct } from '../../undo/useAct'
import { MadeLink } from '../links'
import { handOver, letChange } from './eventQueries'

interface EventGivingProps {
  form: EventDraft
  layer: Layer
  /** Those who can be handed it: people of the group. */
  people: readonly { personId: string; name: string }[]
  /** Those from outside who can be named on it. */
  guests: readonly { personId: string; name: string }[]
  /** Done: the event is another version now. */
  onGiven: () => void
}

const linkSteps: readonly { value: Role; label: string }[] = [
  { value: 'outline', label: 'Title, time and place' },
  { value: 'view', label: 'Everything, with notes and who' },
]

/** Handing one event on: to another organizer, and, for coordinators, to whoever gets its link. */
export function EventGiving({ form, layer, people, guests, onGiven }: EventGivingProps) {
  const [open, setOpen] = useState(false)
  const [to, setTo] = useState('')
  const [role, setRole] = useState<Role>('outline')
  const [made, setMade] = useState<Schema['LinksMadeBody'] | null>(null)
  const others = people.filter((one) => one.personId !== form.organizer)
  const organizer = people.find((one) => one.personId === form.organizer)
  const hand = useAct({
    run: (personId: string, set) => handOver(form.eventId, personId, form.version, set),
    say: () => {
      const name = others.find((one) => one.personId === to)?.name ?? 'somebody else'
      return `“${titleOf(form.title)}” is ${name}’s to organize now.`
    },
    freshen: ['wall'],
    onDone: onGiven,
    saysItself: true,
  })
  const [editors, setEditors] = useState(form.editors)
  const named = [...people, ...guests].filter((one) => form.attendees.includes(one.personId))
  const letting = useAct({
    run: (_, set) => letChange(form.eventId, [...editors], form.version, set),
    say: () => {
      const names = named.filter((one) => editors.includes(one.personId)).map((one) => one.name)
      return names.length === 0
        ? `Nobody changes “${titleOf(form.title)}” by themselves now.`
        : `${names.join(', ')} can change “${titleOf(form.title)}” now, and nothing else.`
    },
    freshen: ['wall'],
    onDone: onGiven,
    saysItself: true,
  })
  const link = useAct({
    run: (_, set) =>
      putLink(
        form.calendarId,
        crypto.randomUUID(),
        { role, name: titleOf(form.title).slice(0, 80), eventId: form.eventId },
        set,
      ),
    say: () => `Made a link to “${titleOf(form.title)}” alone.`,
    freshen: ['access'],
    onDone: setMade,
    saysItself: true,
  })
  if (!open)
    return (
      <div className="mt-3">
        <Button onClick={() => setOpen(true)}>Hand it on</Button>
      </div>
    )
  return (
    <section aria-label="Hand it on" className="mt-3 grid gap-3 border-t border-cement-200 pt-3">
      <h3 className="text-base">Hand it on</h3>
      <div className="grid gap-2">
        <Choice
          label={`Another organizer${organizer ? ` (now ${organizer.name})` : ''}`}
          value={to}
          onChange={setTo}
          options={[
            { value: '', label: 'Choose somebody of the group' },
            ...others.map((one) => ({ value: one.personId, label: one.name })),
          ]}
          problem={fieldProblem(hand.error, 'personId')}
          hint="Who has the step Add can change it from then on, and is the one to ask."
        />
        <div>
          <Button disabled={to === '' || hand.isPending} onClick={() => hand.mutate(to)}>
            Hand over
          </Button>
        </div>
        {hand.isError && !fieldProblem(hand.error, 'personId') && <Alert>{sentenceOf(hand.error)}</Alert>}
      </div>
      {named.length > 0 && (
        <fieldset className="grid gap-1.5">
          <legend className="mb-1 text-[12px] text-cement-700">
            Who is named on it and may change it, without having “{layer.name}”
          </legend>
          {named.map((one) => (
            <Check
              key={one.personId}
              label={
                <span>
                  <span className="written">{one.name}</span>
                  {guests.includes(one) && (
                    <span className="block text-[12px] text-cement-700">
                      From outside: once they are signed in with the address you have.
                    </span>
                  )}
                </span>
              }
              checked={editors.includes(one.personId)}
              onChange={(checked) =>
                setEditors(
                  checked ? [...editors, one.personId] : editors.filter((other) => other !== one.personId),
                )
              }
            />
          ))}
          <div>
            <Button
              disabled={letting.isPending || sameOnes(editors, form.editors)}
              onClick={() => letting.mutate()}
            >
              Let them change it
            </Button>
          </div>
          {letting.isError && <Alert>{sentenceOf(letting.error)}</Alert>}
        </fieldset>
      )}
      {layer.may.coordinate && (
        <div className="grid gap-2">
          <Choice
            label="A link to this event alone shows"
            value={role}
            onChange={setRole}
            options={linkSteps}
            hint={`Nobody needs an account for it. It is listed and ended under the access of “${layer.name}”.`}
          />
          {made?.url ? (
            <MadeLink url={made.url} qr={made.qr ?? ''} onClose={() => setMade(null)} />
          ) : (
            <div>
              <Button disabled={link.isPending} onClick={() => link.mutate()}>
                Make a link
              </Button>
            </div>
          )}
          {link.isError && <Alert>{sentenceOf(link.error)}</Alert>}
        </div>
      )}
    </section>
  )
}

const sameOnes = (a: readonly string[], b: readonly string[]) =>
  a.length === b.length && a.every((one) => b.includes(one))
