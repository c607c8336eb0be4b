import { type QueryClient, useMutation, useQueryClient } from '@tanstack/react-query'
import { type Topic, topics } from '../api/topics'
import { newSet, useActs } from './acts'

interface Act<Wish, Result> {
  /** Does it, all of it under one name by which it is undone. */
  run: (wish: Wish, set: string) => Promise<Result>
  /** What is said when it is done, with an Undo. */
  say: (result: Result, wish: Wish) => string
  /** Whether it is not taken back: what went out by mail, an address that leads nowhere any more. */
  isFinal?: (wish: Wish) => boolean
  /** What it changes, and is asked anew; everything where it cannot be told. */
  freshen: readonly Topic[] | 'all'
  onDone?: (result: Result, wish: Wish) => void
  /** Whether the form it was begun in says itself what went wrong. */
  saysItself?: true
}

/** Changes something at a press: it is done, said with an Undo, and what shows it is asked anew. */
export function useAct<Wish = void, Result = unknown>({
  run,
  say,
  isFinal,
  freshen,
  onDone,
  saysItself,
}: Act<Wish, Result>) {
  const queries = useQueryClient()
  const acts = useActs()
  return useMutation({
    mutationFn: (wish: Wish) => {
      const set = newSet()
      return acts.during(
        run(wish, set).then((result) => {
          acts.done(say(result, wish), isFinal?.(wish) ? undefined : set)
          return result
        }),
      )
    },
    onSuccess: (result, wish) => onDone?.(result, wish),
    onError: (error) => {
      if (!saysItself) acts.failed(error)
    },
    onSettled: () => askAnew(queries, freshen),
  })
}

/** Asks anew what shows some topics. It counts as done when the inbox is read: what was answered cannot be answered again. */
async function askAnew(queries: QueryClient, touched: readonly Topic[] | 'all') {
  if (touched === 'all') await queries.invalidateQueries()
  else {
    const keys = new Set<string>(touched.flatMap((topic) => topics[topic]))
    const asked = [...keys].map((key) => ({ key, done: queries.invalidateQueries({ queryKey: [key] }) }))
    await asked.find(({ key }) => key === 'inbox')?.done
  }
}
