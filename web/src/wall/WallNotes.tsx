import { Suspense } from 'react'
import { useReader } from '../reader/person'
import { lazyNamed } from '../ui/lazyNamed'
import { AddressNote } from './AddressNote'
import { DraftNote } from './DraftNote'
import type { Wall } from './useWall'

const UnconfirmedNote = lazyNamed(() => import('../features/preferences/UnconfirmedNote'), 'UnconfirmedNote')

/** What is said over the wall about the address one came by, and one's own. */
export function WallNotes({ isOutside, group, address, isShelfRead, layers, draft }: Wall) {
  const { unconfirmed } = useReader().person
  return (
    <>
      {unconfirmed && (
        <Suspense>
          <UnconfirmedNote address={unconfirmed} />
        </Suspense>
      )}
      <DraftNote draft={draft} />
      {isOutside && (
        <p role="status" className="border-b border-cement-300 bg-cement-200 px-4 py-1 text-[13px]">
          You are not in the group of this address{group && `, so this is ${group.name}`}. Somebody who
          coordinates it can add you.
        </p>
      )}
      {address && isShelfRead && (
        <AddressNote address={address} shown={layers.filter((layer) => layer.shown).length} />
      )}
    </>
  )
}
