import { useMemo, useState } from 'react'
import { useEventActs, type Written } from '../../features/events/useEventActs'
import { type Brick, brickKey, type EventBrick, type Layer } from '../../model/bricks'
import { copyOf, draftOf, type EventDraft } from '../../model/eventDraft'
import { daysBetween, daysOf, minutesBetween, moved } from '../../model/times'
import { newSet, useActs } from '../../undo/acts'

/** Several bricks that are marked, and what is done with all of them at once: with those out of view as well. */
export function useMarks(bricks: readonly Brick[]) {
  const acts = useActs()
  const { write, remove } = useEventActs()
  // As they were when they were marked; what the wall shows of them is newer.
  const [kept, setKept] = useState<ReadonlyMap<string, EventBrick>>(new Map())
  const inView = useMemo(() => {
    const found = new Map<string, EventBrick>()
    if (kept.size > 0)
      for (const brick of bricks)
        if (brick.form === 'event' && kept.has(brickKey(brick))) found.set(brickKey(brick), brick)
    return found
  }, [bricks, kept])
  const marked = [...kept].map(([key, one]) => inView.get(key) ?? one)

  const clear = () => setKept(new Map())
  const mark = (brick: EventBrick) => {
    const key = brickKey(brick)
    setKept((before) =>
      before.has(key)
        ? new Map([...before].filter(([one]) => one !== key))
        : new Map([...before, [key, brick]]),
    )
  }
  /** One act on each that it may be done to; dates of one series follow each other, each on the version the one before made. */
  const each = (...what: Parameters<typeof run>) => acts.during(run(...what))
  const run = async (
    act: (form: EventDraft, set: ReturnType<typeof newSet>) => Promise<Written>,
    may: (brick: EventBrick) => boolean,
    did: string,
  ) => {
    const set = newSet()
    const versions = new Map<string, number>()
    let done = 0
    for (const one of marked.filter(may)) {
      const written = await act({ ...draftOf(one), version: versions.get(one.eventId) ?? one.version }, set)
      if (written.kind !== 'done') continue
      versions.set(one.eventId, (versions.get(one.eventId) ?? one.version) + 1)
      done += 1
    }
    if (done === 0) acts.done('Nothing was changed: these are not yours to change, or somebody changed them.')
    else acts.done(countedText(did, done, marked.length), set)
  }
  /** By how much one of them was carried, all of them are. */
  const carried = (brick: EventBrick, time: EventDraft['time']) => {
    const byDays = daysBetween(daysOf(brick.time).first, daysOf(time).first)
    const byMinutes =
      time.form === 'days' || brick.time.form === 'days'
        ? 0
        : minutesBetween(brick.time.start, time.start) - byDays * 1440
    return (one: EventDraft['time']) => moved(one, byDays, byMinutes)
  }

  return {
    keys: useMemo(() => new Set(kept.keys()), [kept]),
    count: kept.size,
    away: kept.size - inView.size,
    /** Whether a date of a series is among them: a calendar has all of a series or nothing. */
    hasSeries: marked.some((one) => one.only !== null),
    mark,
    clear,
    deleteAll: async () => {
      await each(
        (form, set) => remove(form, 'onlyThis', set),
        (one) => one.mayGiveAway,
        'Deleted',
      )
      clear()
    },
    moveAll: (brick: EventBrick, time: EventDraft['time']) => {
      const to = carried(brick, time)
      return each(
        (form, set) => write({ ...form, time: to(form.time) }, '', 'onlyThis', set),
        (one) => one.mayChange,
        'Moved',
      )
    },
    copyAll: (brick: EventBrick, time: EventDraft['time']) => {
      const to = carried(brick, time)
      return each(
        (form, set) => write({ ...copyOf(form), time: to(form.time) }, '', 'whole', set),
        (one) => one.mayChange,
        'Copied',
      )
    },
    /** The same again so many days later, or earlier below 0. */
    copyBy: (days: number) =>
      each(
        (form, set) => write({ ...copyOf(form), time: moved(form.time, days, 0) }, '', 'whole', set),
        (one) => one.mayChange,
        'Copied',
      ),
    putIn: async ({ calendarId, name }: Pick<Layer, 'calendarId' | 'name'>) => {
      const there = new Set<string>()
      await each(
        async (form, set) => {
          // A series goes as a whole, however many of its dates are marked.
          if (there.has(form.eventId)) return { kind: 'done' }
          there.add(form.eventId)
          return write({ ...form, calendarId }, '', 'whole', set)
        },
        (one) => one.mayGiveAway,
        `Moved to “${name}”:`,
      )
      clear()
    },
  }
}

const countedText = (did: string, done: number, all: number): string =>
  done < all
    ? `${did} ${done} of ${all} events; the others are not yours to change, or somebody changed them.`
    : `${did} ${done === 1 ? 'one event' : `${done} events`}.`
