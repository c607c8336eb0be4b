import { useState } from 'react'
import { brickKey } from '../../model/bricks'
import { differences, draftOf, type EventDraft } from '../../model/eventDraft'

/** More than this nobody looks through; what was left longest ago goes. */
const most = 10

const keyOf = (personId: string) => `mortar-drafts-${personId}`

/**
 * What was written and not saved, the newest last: kept in this tab through a reload, another page, Back and a sleeping tab, per
 * person, until it is saved or let go. Nothing of it is sent anywhere.
 */
export function useKeptDrafts(personId: string) {
  const [kept, setKept] = useState<readonly EventDraft[]>(() => read(personId))
  const change = (next: (before: readonly EventDraft[]) => readonly EventDraft[]) =>
    setKept((before) => {
      const after = next(before).slice(-most)
      write(personId, after)
      return after
    })
  const drop = (form: EventDraft) => change((before) => without(before, form))
  return {
    all: kept,
    /** Keeps it as it is by now, or forgets it where nothing was written. */
    keep: (form: EventDraft) =>
      isWritten(form)
        ? change((before) => [...without(before, form), form])
        : kept.some((one) => brickKey(one) === brickKey(form)) && drop(form),
    drop,
  }
}

const without = (all: readonly EventDraft[], form: EventDraft) =>
  all.filter((one) => brickKey(one) !== brickKey(form))

function read(personId: string): readonly EventDraft[] {
  try {
    const all: unknown = JSON.parse(sessionStorage.getItem(keyOf(personId)) ?? '[]')
    return Array.isArray(all) ? all : []
  } catch {
    return []
  }
}

function write(personId: string, all: readonly EventDraft[]) {
  try {
    if (all.length === 0) sessionStorage.removeItem(keyOf(personId))
    else sessionStorage.setItem(keyOf(personId), JSON.stringify(all))
  } catch {
    // A full or forbidden store of the browser: it is still kept while the page is open.
  }
}

/** Whether a form holds something that is nowhere else. */
const isWritten = (form: EventDraft): boolean =>
  form.before === null
    ? form.title !== '' || (form.notes ?? '') !== '' || form.place !== ''
    : differences(form, draftOf(form.before)).length > 0
