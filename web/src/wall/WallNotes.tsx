import { AddressNote } from './AddressNote'
import type { Wall } from './useWall'

/** What is said over the wall about the address one came by. */
export function WallNotes({ isOutside, group, address, isShelfRead, layers }: Wall) {
  return (
    <>
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
