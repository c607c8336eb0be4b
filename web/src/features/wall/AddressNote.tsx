import type { AddressLayers } from './useAddressLayers'

/** Says that an address decides which layers are shown, what of it one may not see, and the way back. */
export function AddressNote({ address, shown }: { address: AddressLayers; shown: number }) {
  const count = address.missing.length
  return (
    <p
      role="status"
      className="flex flex-wrap items-center gap-x-4 border-b border-cement-300 bg-cement-200 px-4 py-1 text-[13px]"
    >
      <span>
        This address shows {shown === 1 ? 'one of your layers' : `${shown} of your layers`}.
        {count > 0 &&
          ` ${count === 1 ? 'One calendar' : `${count} calendars`} in it ${count === 1 ? 'is' : 'are'} not on your wall: ask whoever sent it for access.`}
      </span>
      <button type="button" onClick={() => address.show(null)} className="font-bold underline">
        Show what I keep
      </button>
    </p>
  )
}
