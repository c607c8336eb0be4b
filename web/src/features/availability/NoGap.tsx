import type { ReactNode } from 'react'
import type { GapAnswer } from '../../model/availabilityQueries'
import { dateOf, minutesBetween } from '../../model/times'
import { clockText, lengthText, longDayText } from '../../reader/dates'
import { Button } from '../../ui/Button'
import { type GapForm, lengths } from './gapForm'

interface NoGapProps {
  why: NonNullable<GapAnswer['why']>
  form: GapForm
  nameOf: (id: string) => string
  onForm: (form: GapForm) => void
  onGo: (day: string) => void
}

/** No gap: who stands in the way most, and what would make room, each done by a press. */
export function NoGap({ why, form, nameOf, onForm, onGo }: NoGapProps): ReactNode {
  const alone = why.obstacles.filter((one) => one.first !== null)
  const [most] = why.obstacles
  const longest = why.longestStart && why.longestEnd ? minutesBetween(why.longestStart, why.longestEnd) : 0
  const shorter = lengths.findLast((minutes) => minutes <= longest && minutes < form.minutes)
  return (
    <section aria-label="No gap" className="grid gap-2 border-l-4 border-ink pl-3">
      <p role="status" className="written font-bold">
        There is no gap of {lengthText(form.minutes)} in these days.
      </p>
      {alone.length === 0 && most && (
        <p className="written">
          {nameOf(most.id)} is taken most ({lengthText(most.minutes)}), and not alone in the way.
        </p>
      )}
      {alone.slice(0, 3).map(
        (one) =>
          one.first && (
            <div key={one.id}>
              <Button
                onClick={() => {
                  onForm(without(form, one.id))
                  onGo(dateOf(one.first ?? form.from))
                }}
              >
                Without {nameOf(one.id)}: {longDayText(one.first)}, {clockText(one.first)}
              </Button>
            </div>
          ),
      )}
      {shorter && why.longestStart && (
        <div>
          <Button
            onClick={() => {
              onForm({ ...form, minutes: shorter })
              onGo(dateOf(why.longestStart ?? form.from))
            }}
          >
            For {lengthText(shorter)}: {longDayText(why.longestStart)}, {clockText(why.longestStart)}
          </Button>
        </div>
      )}
      {form.hours === 'kept' && (
        <div>
          <Button onClick={() => onForm({ ...form, hours: 'preferred' })}>Also outside usual hours</Button>
        </div>
      )}
    </section>
  )
}

/** Somebody is welcome instead of needed; a place is left out. */
const without = (form: GapForm, id: string): GapForm => ({
  ...form,
  people: form.people.map((one) => (one.id === id ? { ...one, need: 'optional' } : one)),
  places: form.places.filter((one) => one !== id),
})
