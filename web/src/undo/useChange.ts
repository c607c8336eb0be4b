import type { Topic } from '../api/topics'
import { useAct } from './useAct'

/** A change, what is said when it is done, and that it is not taken back. */
interface Change<Result> {
  act: (set: string) => Promise<Result>
  sentence: string
  isFinal?: true
}

/** An act that is decided by what is pressed: one place for several of them. */
export function useChange<Result = unknown>(
  freshen: readonly Topic[],
  onDone?: (result: Result) => void,
  how?: { saysItself: true },
) {
  return useAct<Change<Result>, Result>({
    run: ({ act }, set) => act(set),
    say: (_, { sentence }) => sentence,
    isFinal: (wish) => wish.isFinal === true,
    freshen,
    ...(onDone && { onDone }),
    ...how,
  })
}
