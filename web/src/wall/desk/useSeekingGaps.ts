import { useEffect, useEffectEvent } from 'react'
import type { useGaps } from '../../features/availability/useGaps'
import { useReader } from '../../reader/person'
import type { WallPlace } from '../read/useWallPlace'
import type { Draft } from './useDraft'

/** More people than these are not meant by looking at them: nobody looks for a gap of a whole club. */
const mostMeant = 12

/** Beginning to look for gaps: for those one looks at, or for whom one names. */
export function useSeekingGaps(
  { desk, as, who }: WallPlace,
  inView: readonly string[],
  arePeopleRead: boolean,
  gaps: ReturnType<typeof useGaps>,
  draft: Draft,
) {
  const { person } = useReader()
  /** For those in view where they are few enough to be meant; else for oneself and whoever is added. */
  const whomMeant = () => (who.length > 0 || inView.length <= mostMeant ? inView : [person.id])
  const seekFor = (whom: readonly string[], places: readonly string[] = []) => {
    gaps.begin(whom, places)
    draft.put({ kind: 'gaps' })
  }

  // An address that leads to the gaps begins with those in view.
  const begin = useEffectEvent(() => gaps.begin(whomMeant()))
  const isUnasked = desk?.kind === 'gaps' && gaps.form === null && arePeopleRead && !as
  useEffect(() => {
    if (isUnasked) begin()
  }, [isUnasked])

  return { seekFor, seekForView: () => seekFor(whomMeant()) }
}
