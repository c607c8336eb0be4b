import { useState } from 'react'
import type { ReachAsked } from '../../features/events/eventQueries'
import { useSight } from '../../features/events/useSight'
import { type Brick, brickKey, type EventBrick, type Layer, titleOf } from '../../model/bricks'
import { brickOf, differences, draftOf, type EventDraft } from '../../model/eventDraft'
import { useActs } from '../../undo/acts'
import type { WallPlace } from '../read/useWallPlace'
import type { DeskPlace } from './deskPlace'

export type Draft = ReturnType<typeof useDraft>

/** What is being written on the desk: it is left by laying something else there, and can be brought back. */
export function useDraft({ desk, place }: WallPlace, layers: readonly Layer[], bricks: readonly Brick[]) {
  const acts = useActs()
  const [form, setForm] = useState<EventDraft | null>(null)
  const [met, setMet] = useState<EventDraft | null>(null)
  const [asked, setAsked] = useState<ReachAsked>(null)
  const sight = useSight(form, layers)

  const open = (next: EventDraft, theirs: EventDraft | null = null, asking: ReachAsked = null) => {
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
  const titleIn = ({ title, calendarId }: { title: string; calendarId: string }) =>
    titleOf(title, layers.find((layer) => layer.calendarId === calendarId)?.purpose)

  return {
    form,
    setForm,
    /** What somebody else saved meanwhile. */
    met,
    setMet,
    /** Whether it is asked how far into a series it reaches. */
    asked,
    /** How the reader stands to what they write. */
    sight,
    titleIn,
    open,
    close: () => turnTo(null),
    /** Lays something else on the desk; what was written is forgotten. */
    put: (next: DeskPlace) => {
      setForm(null)
      place(next)
    },
    /** Lays something else on the desk, or nothing; what was written and not saved can be brought back. */
    leaveFor: (next: DeskPlace | null) => {
      const left = desk?.kind === 'writing' && asked === null && sight?.kind === 'writes' ? sight.form : null
      turnTo(next)
      if (left && isWritten(left, bricks))
        acts.offer(`“${titleIn(left)}” was not saved.`, 'Bring it back', () => open(left))
    },
  }
}

/** Whether a form holds something that the wall does not. */
function isWritten(form: EventDraft, bricks: readonly Brick[]): boolean {
  if (form.before === null) return form.title !== '' || (form.notes ?? '') !== '' || form.place !== ''
  const there = bricks.find((brick): brick is EventBrick => brickKey(brick) === brickKey(brickOf(form)))
  return there !== undefined && differences(form, draftOf(there)).length > 0
}
