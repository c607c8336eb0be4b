import { useState } from 'react'
import type { ReachAsked } from '../../features/events/eventQueries'
import { useSight } from '../../features/events/useSight'
import { brickKey, type Layer, titleOf } from '../../model/bricks'
import type { EventDraft } from '../../model/eventDraft'
import { useReader } from '../../reader/person'
import type { WallPlace } from '../read/useWallPlace'
import type { DeskPlace } from './deskPlace'
import { useKeptDrafts } from './useKeptDrafts'

export type Draft = ReturnType<typeof useDraft>

/** What is being written on the desk: it is left by laying something else there, and is kept until it is saved or let go. */
export function useDraft({ desk, place }: WallPlace, layers: readonly Layer[]) {
  const kept = useKeptDrafts(useReader().person.id)
  const isWriting = desk?.kind === 'writing'
  // A page that was loaded anew while something was written goes on with that.
  const [form, setForm] = useState<EventDraft | null>(() => (isWriting ? (kept.all.at(-1) ?? null) : null))
  const [met, setMet] = useState<EventDraft | null>(null)
  const [asked, setAsked] = useState<ReachAsked>(null)
  const [wasKept, setWasKept] = useState(form !== null)
  const sight = useSight(form, layers, wasKept)

  const open = (next: EventDraft, theirs: EventDraft | null = null, asking: ReachAsked = null) => {
    setWasKept(false)
    setForm(next)
    setMet(theirs)
    setAsked(asking)
    place({ kind: 'writing' })
  }
  const turnTo = (next: DeskPlace | null) => {
    setForm(null)
    setMet(null)
    setAsked(null)
    place(next)
  }

  return {
    form,
    setForm: (next: EventDraft) => {
      setForm(next)
      kept.keep(next)
    },
    /** What somebody else saved meanwhile. */
    met,
    setMet,
    /** Whether it is asked how far into a series it reaches. */
    asked,
    /** How the reader stands to what they write. */
    sight,
    /** What was written and not saved, and is not being written at this moment. */
    left: kept.all.filter((one) => !(isWriting && form && brickKey(one) === brickKey(form))),
    bringBack: (left: EventDraft) => {
      open(left)
      setWasKept(true)
    },
    forget: kept.drop,
    titleIn: ({ title, calendarId }: { title: string; calendarId: string }) =>
      titleOf(title, layers.find((layer) => layer.calendarId === calendarId)?.purpose),
    open,
    /** It is saved or settled otherwise, and nothing is left of it to be kept. */
    close: () => {
      if (form) kept.drop(form)
      turnTo(null)
    },
    /** Lays something else on the desk. */
    put: (next: DeskPlace) => {
      setForm(null)
      place(next)
    },
    /** Lays something else on the desk, or nothing; what was written and not saved can be brought back. */
    leaveFor: turnTo,
  }
}
