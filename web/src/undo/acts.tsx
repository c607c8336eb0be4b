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
  /** Undoes the latest act of one's own on this screen. */
  undo: () => void
}

const ActsContext = createContext<Acts | null>(null)

/** A name for what one act changes, by which it is undone. */
export const newSet = () => crypto.randomUUID()

export function ActsProvider({ children }: { children: ReactNode }) {
  const queries = useQueryClient()
  const [notice, setNotice] = useState<Notice | null>(null)
  const counter = useRef(0)
  const past = useRef<string[]>([])

  const say = useCallback((sentence: string, tone: Notice['tone'], offer?: Notice['offer']) => {
    counter.current += 1
    setNotice({ id: counter.current, sentence, tone, offer })
  }, [])

  const failed = useCallback((error: unknown) => say(sentenceOf(error), 'bad'), [say])

  const undo = useCallback(() => {
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
      say(sentence, 'done', set ? { label: 'Undo', run: undo } : undefined)
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

  const acts = useMemo(() => ({ done, offer, failed, undo }), [done, offer, failed, undo])
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
