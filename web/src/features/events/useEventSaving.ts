import { useState } from 'react'
import { titleOf } from '../../model/bricks'
import { type EventDraft, timeProblem } from '../../model/eventDraft'
import { keepLastCalendar } from '../../model/makeIn'
import { newSet } from '../../undo/acts'
import type { Reach, ReachAsked } from './eventQueries'
import { useEventActs, type Written } from './useEventActs'
import type { EventPeople } from './useEventPeople'

interface EventSavingProps {
  form: EventDraft
  people: EventPeople
  /** Asked at once, where the brick was carried on the wall. */
  asked: ReachAsked
  onMet: (theirs: EventDraft | null) => void
  onClose: () => void
}

/** Saving and deleting what is on the desk; one date of a series is asked how far it reaches first. */
export function useEventSaving({
  form,
  people: { calendar, from },
  asked,
  onMet,
  onClose,
}: EventSavingProps) {
  const { write, remove } = useEventActs()
  const [error, setError] = useState<unknown>(null)
  const [busy, setBusy] = useState(false)
  const [asking, setAsking] = useState<ReachAsked>(asked)
  const isNew = form.before === null

  const settle = (written: Written) => {
    setBusy(false)
    if (written.kind === 'done') onClose()
    if (written.kind === 'stale') onMet(written.theirs)
    if (written.kind === 'refused') setError(written.error)
  }
  const begin = () => {
    setBusy(true)
    setError(null)
    setAsking(null)
  }
  const sentenceOf = (wish: EventDraft, reach: Reach) => {
    const title = titleOf(wish.title, calendar?.purpose)
    if (isNew) return `Added “${title}” to ${calendar?.name ?? 'the calendar'}.`
    const way = from ? ` from ${from.name} to ${calendar?.name}` : ''
    return `${from ? 'Moved' : 'Changed'} “${title}”${way}${wish.only ? reachWords[reach] : ''}.`
  }
  const save = async (wish: EventDraft, reach: Reach) => {
    begin()
    const written = await write(wish, sentenceOf(wish, reach), reach)
    if (written.kind === 'done' && calendar && (isNew || from)) keepLastCalendar(calendar)
    settle(written)
  }
  const erase = async (reach: Reach) => {
    begin()
    settle(await remove(form, reach, newSet(), titleOf(form.title, calendar?.purpose)))
  }
  /** Saves it, or asks first how far that reaches. */
  const saveOrAsk = (wish: EventDraft) => {
    if (wish.only && !isNew) setAsking('change')
    else void save(wish, 'whole')
  }

  return {
    error,
    busy,
    asking,
    /** What was wrong may be right by now; saving says what is not. */
    forget: () => setError(null),
    saveOrAsk,
    submit: () => {
      if (!timeProblem(form.time) && calendar) saveOrAsk(form)
    },
    eraseOrAsk: () => {
      if (form.only) setAsking('delete')
      else void erase('whole')
    },
    /** How far it reaches was answered. */
    reach: (reach: Reach) => void (asking === 'delete' ? erase(reach) : save(form, reach)),
    cancel: () => (asked ? onClose() : setAsking(null)),
  }
}

const reachWords: Record<Reach, string> = {
  onlyThis: ', this date only',
  andLater: ', from this date on',
  whole: ', the whole series',
}
