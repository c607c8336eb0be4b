import { useQuery } from '@tanstack/react-query'
import { useMemo, useState } from 'react'
import { type Gap, gapsQuery } from '../../model/availabilityQueries'
import { addDays } from '../../model/times'
import { asksForSomebody, type GapForm, gapForm, questionOf } from './gapForm'

interface UseGapsOptions {
  /** Whether gaps are being looked for on the desk. */
  isOpen: boolean
  /** Whether there is a row in which what is common to all in view stands. */
  hasTogether: boolean
  /** The people in view. */
  people: readonly string[]
  first: string
  last: string
  today: string
  /** How long something is at first. */
  minutes: number
  group: string | null
}

const none: readonly Gap[] = []

/** A fortnight is how far people look ahead for a meeting (common practice, no source). */
const ahead = 13

/** What is looked for on the desk and found, and what those in view have in common. */
export function useGaps({ isOpen, hasTogether, people, first, last, today, minutes, group }: UseGapsOptions) {
  const [form, setForm] = useState<GapForm | null>(null)
  const [kept, setKept] = useState<readonly Gap[]>(none)
  const from = first > today ? first : today
  const begin = (ids: readonly string[], places: readonly string[] = []) => {
    setKept(none)
    setForm(gapForm(ids, places, from, addDays(from, ahead), minutes, group))
  }
  const asked = useMemo(() => form && questionOf(form), [form])
  const answer = useQuery({
    ...gapsQuery(asked ?? questionOf(gapForm([], [], from, from, minutes, group))),
    enabled: isOpen && form !== null && asksForSomebody(form),
  })
  const inView = useMemo(
    () => ({ ...questionOf(gapForm(people, [], from, last, minutes, group)) }),
    [people, from, last, minutes, group],
  )
  const common = useQuery({
    ...gapsQuery(inView),
    enabled: hasTogether && !isOpen && people.length > 1 && last >= from,
  })
  const isAsked = isOpen && form !== null
  return {
    form,
    setForm,
    begin,
    kept,
    setKept,
    answer: isAsked && asksForSomebody(form) ? answer.data : undefined,
    error: isAsked ? answer.error : null,
    /** Whether the answer is still that to what was asked before. */
    waits: isAsked && answer.isPlaceholderData,
    /** What is lit on the wall. */
    lit: (isAsked && asksForSomebody(form) ? answer.data?.gaps : undefined) ?? none,
    /** What stands in the row of what all have in common; undefined while it is not known. */
    together: isAsked ? answer.data?.gaps : people.length > 1 && last >= from ? common.data?.gaps : none,
  }
}
