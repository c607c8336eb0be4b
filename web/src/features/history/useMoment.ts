import { useQuery } from '@tanstack/react-query'
import { momentText } from '../../reader/dates'
import { useAct } from '../../undo/useAct'
import type { MomentPlace } from './momentPlace'
import { bringBackTo, type MomentFate, type MomentThing, momentQuery } from './momentQueries'

const words: Record<MomentFate, (count: number) => string> = {
  comes: (count) => `${count} ${count === 1 ? 'comes' : 'come'} back`,
  goes: (count) => `${count} ${count === 1 ? 'goes' : 'go'} to the bin`,
  moves: (count) => `${count} ${count === 1 ? 'moves' : 'move'}`,
  changes: (count) => `${count} ${count === 1 ? 'is' : 'are'} as before again`,
}

/** A calendar at a moment: what bringing it back would do, in words, and doing it. */
export function useMoment({ calendarId, at }: MomentPlace, onDone: () => void) {
  const preview = useQuery(momentQuery(calendarId, at))
  const back = useAct({
    run: (moment: string, set) => bringBackTo(calendarId, moment, set),
    say: ({ returned }, moment) =>
      `${returned === 1 ? '1 event is' : `${returned} events are`} as on ${momentText(moment)}.`,
    freshen: 'all',
    onDone,
  })
  const fates = preview.data?.fates ?? []
  return {
    error: preview.error,
    isSame: preview.isSuccess && fates.length === 0,
    fates: fates.map((one) => ({ ...one, words: words[one.fate](one.count) })),
    stays: preview.data?.stays ?? 0,
    mayBringBack: fates.length > 0 && !back.isPending && !preview.isFetching,
    bringBack: () => back.mutate(at),
  }
}

/** The days on which something would not stay as it is, in order. */
export const daysTouched = (things: readonly MomentThing[]): string[] =>
  [
    ...new Set(things.flatMap(({ then, now }) => [then, now].flatMap((time) => (time ? [dayOf(time)] : [])))),
  ].sort()

/** The day on which a thing is to be found on the wall. */
export const dayOf = (time: NonNullable<MomentThing['now']>): string =>
  time.form === 'days' ? time.first : time.start.slice(0, 10)
