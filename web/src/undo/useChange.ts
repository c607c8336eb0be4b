import { useMutation, useQueryClient } from '@tanstack/react-query'
import { newSet, useActs } from './acts'

/** A change, what is said when it is done, and that it is not taken back: what went out by mail, an address that leads nowhere any more. */
interface Change {
  act: (set: string) => Promise<unknown>
  sentence: string
  isFinal?: true
}

/** Changes something at a press: with what is said and an undo, and with what is asked anew after it. */
export function useChange(keys: readonly string[], onDone?: () => void) {
  const queries = useQueryClient()
  const acts = useActs()
  return useMutation({
    mutationFn: async ({ act, sentence, isFinal }: Change) => {
      const set = newSet()
      await act(set)
      return { set: isFinal ? undefined : set, sentence }
    },
    onSuccess: ({ set, sentence }) => {
      acts.done(sentence, set)
      onDone?.()
    },
    onError: (error) => acts.failed(error),
    onSettled: () => {
      for (const key of keys) void queries.invalidateQueries({ queryKey: [key] })
    },
  })
}
