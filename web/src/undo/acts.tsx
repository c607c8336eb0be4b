import { useQueryClient } from '@tanstack/react-query'
import { createContext, type ReactNode, useCallback, useContext, useMemo, useRef, useState } from 'react'
import { api, unwrap } from '../api/client'
import { ProblemError, sentenceOf } from '../api/problem'
import { NoticeBar } from '../ui/NoticeBar'

interface Notice {
  id: number
  sentence: string
  tone: 'done' | 'bad'
  /** What can be done about it from the line itself. */
  offer?: { label: string; run: () => void }
}

interface Acts {
  /** Says what happened, with an Undo where a change set is given. */
  done: (sentence: string, set?: string) => void
  /** Says something with one thing to do about it. */
  offer: (sentence: string, label: string, run: () => void) => void
  /** Says what went wrong. */
  failed: (error: unknown) => void
  /** Undoes the latest act of one's own, also one that is still on its way; one of before this page is named first. */
  undo: () => void
  /** Undoes an act, one's own or another's; of one that was overtaken what still fits is offered. */
  undoAct: (act: string, how?: { calendar?: string }) => Promise<void>
  /** Takes note of an act that is on its way and said once it is done. */
  during: <T>(act: Promise<T>) => Promise<T>
  /** Whether an act is on its way at this moment. */
  isUnderWay: () => boolean
}

const ActsContext = createContext<Acts | null>(null)

/** A name for what one act changes, by which it is undone. */
export const newSet = () => crypto.randomUUID()

export function ActsProvider({ children }: { children: ReactNode }) {
  const queries = useQueryClient()
  const [notice, setNotice] = useState<Notice | null>(null)
  const counter = useRef(0)
  const past = useRef<string[]>([])
  /** The act of before this page that was named and is undone at the next press. */
  const named = useRef<string>(undefined)
  const onTheWay = useRef(new Set<Promise<unknown>>())

  const say = useCallback((sentence: string, tone: Notice['tone'], offer?: Notice['offer']) => {
    counter.current += 1
    setNotice({ id: counter.current, sentence, tone, offer })
  }, [])

  const failed = useCallback((error: unknown) => say(sentenceOf(error), 'bad'), [say])

  const during = useCallback(<T,>(act: Promise<T>): Promise<T> => {
    onTheWay.current.add(act)
    const forget = () => void onTheWay.current.delete(act)
    act.then(forget, forget)
    return act
  }, [])

  const isUnderWay = useCallback(() => onTheWay.current.size > 0, [])

  const offer = useCallback(
    (sentence: string, label: string, run: () => void) => {
      const once = () => {
        setNotice(null)
        run()
      }
      say(sentence, 'done', { label, run: once })
    },
    [say],
  )

  const undoAct = useCallback(
    async (act: string, how: { calendar?: string; fits?: true } = {}) => {
      const set = newSet()
      try {
        const undone = await unwrap(
          api.POST('/api/changes/{set}/undo', {
            params: { path: { set: act }, query: how },
            headers: { 'X-Change-Set': set },
          }),
        )
        offer(undoneText(undone), 'Do it again', () => void undoAct(set))
      } catch (error) {
        if (isOvertaken(error) && !how.fits)
          setNotice({
            id: ++counter.current,
            sentence: sentenceOf(error),
            tone: 'bad',
            offer: {
              label: 'Bring back what still fits',
              run: () => void undoAct(act, { ...how, fits: true }),
            },
          })
        else failed(error)
      }
      await queries.invalidateQueries()
    },
    [offer, failed, queries],
  )

  const undo = useCallback(async () => {
    // What is pressed just after an act means that act, however long its answer takes.
    await Promise.allSettled(onTheWay.current)
    const set = past.current.pop() ?? named.current
    named.current = undefined
    if (set) {
      await undoAct(set)
      return
    }
    try {
      // Nothing was done on this page: what one did before, or elsewhere, is named first and undone at the second press.
      const { lastAct } = await import('./lastAct')
      const last = await lastAct()
      if (last) {
        named.current = last.act
        offer(`Z again to undo your last act, ${last.words}`, 'Undo it', () => void undo())
      } else say('There is nothing to undo.', 'done')
    } catch (error) {
      failed(error)
    }
  }, [undoAct, offer, say, failed])

  const done = useCallback(
    (sentence: string, set?: string) => {
      // Several changes of one act are one thing to undo.
      if (set && past.current.at(-1) !== set) past.current.push(set)
      named.current = undefined
      say(sentence, 'done', set ? { label: 'Undo', run: () => void undo() } : undefined)
    },
    [say, undo],
  )
  const acts = useMemo(
    () => ({ done, offer, failed, undo: () => void undo(), undoAct, during, isUnderWay }),
    [done, offer, failed, undo, undoAct, during, isUnderWay],
  )
  return (
    <ActsContext value={acts}>
      {children}
      <NoticeBar notice={notice} onClose={() => setNotice(null)} />
    </ActsContext>
  )
}

const isOvertaken = (error: unknown) =>
  error instanceof ProblemError && error.type === 'urn:mortar:changed-since'

const undoneText = ({ returned, left }: { returned: number; left: number }) => {
  const done =
    returned === 1 ? 'Undone.' : `Undone: ${returned.toLocaleString('en-GB')} things are as before.`
  return left > 0 ? `${done} ${left.toLocaleString('en-GB')} were changed since and stay.` : done
}

export function useActs(): Acts {
  const acts = useContext(ActsContext)
  if (!acts) throw new Error('useActs needs an ActsProvider around it.')
  return acts
}
