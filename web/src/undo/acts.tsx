import { useQueryClient } from '@tanstack/react-query'
import { createContext, type ReactNode, useCallback, useContext, useMemo, useRef, useState } from 'react'
import { api, unwrap } from '../api/client'
import { sentenceOf } from '../api/problem'
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
  /** Undoes the latest act of one's own on this screen, also one that is still on its way. */
  undo: () => void
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

  const undo = useCallback(async () => {
    // What is pressed just after an act means that act, however long its answer takes.
    await Promise.allSettled(onTheWay.current)
    const set = past.current.pop()
    if (!set) {
      say('There is nothing to undo on this screen.', 'done')
      return
    }
    unwrap(api.POST('/api/changes/{set}/undo', { params: { path: { set } } })).then(
      ({ returned }) => {
        say(
          returned === 1 ? 'Undone.' : `Undone: ${returned.toLocaleString('en-GB')} things are as before.`,
          'done',
        )
        void queries.invalidateQueries()
      },
      (error) => {
        failed(error)
        void queries.invalidateQueries()
      },
    )
  }, [say, failed, queries])

  const done = useCallback(
    (sentence: string, set?: string) => {
      // Several changes of one act are one thing to undo.
      if (set && past.current.at(-1) !== set) past.current.push(set)
      say(sentence, 'done', set ? { label: 'Undo', run: () => void undo() } : undefined)
    },
    [say, undo],
  )
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

  const acts = useMemo(
    () => ({ done, offer, failed, undo: () => void undo(), during, isUnderWay }),
    [done, offer, failed, undo, during, isUnderWay],
  )
  return (
    <ActsContext value={acts}>
      {children}
      <NoticeBar notice={notice} onClose={() => setNotice(null)} />
    </ActsContext>
  )
}

export function useActs(): Acts {
  const acts = useContext(ActsContext)
  if (!acts) throw new Error('useActs needs an ActsProvider around it.')
  return acts
}
