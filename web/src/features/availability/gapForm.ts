import type { GapQuestion } from '../../model/availabilityQueries'

/** How much somebody is needed. */
export type Need = 'required' | 'optional' | 'any'

/** What is looked for, as it stands on the desk. */
export interface GapForm {
  people: readonly { id: string; need: Need }[]
  places: readonly string[]
  /** How many of those who are only some of many. */
  count: number
  from: string
  to: string
  minutes: number
  hours: GapQuestion['hours']
  before: number
  after: number
  /** The group whose week counts as usual. */
  group: string | null
}

/** The lengths that are offered, in minutes. */
export const lengths: readonly number[] = [15, 30, 45, 60, 90, 120, 180, 240, 480]

export const gapForm = (
  people: readonly string[],
  places: readonly string[],
  from: string,
  to: string,
  minutes: number,
  group: string | null,
): GapForm => ({
  people: people.map((id) => ({ id, need: 'required' })),
  places,
  count: 1,
  from,
  to,
  minutes,
  hours: 'kept',
  before: 0,
  after: 0,
  group,
})

export function questionOf(form: GapForm): GapQuestion {
  const of = (need: Need) => form.people.filter((one) => one.need === need).map((one) => one.id)
  const among = of('any')
  return {
    required: of('required'),
    optional: of('optional'),
    places: [...form.places],
    from: form.from,
    to: form.to,
    minutes: form.minutes,
    hours: form.hours,
    before: form.before,
    after: form.after,
    group: form.group,
    any: among.length > 0 ? { count: Math.min(form.count, among.length), among } : null,
  }
}

/** Whether there is anybody to look for. */
export const asksForSomebody = (form: GapForm): boolean => form.people.length + form.places.length > 0
