import { useState } from 'react'
import { AskForm } from '../features/access/AskForm'
import type { AddressLayers } from '../model/useAddressLayers'

/** Says that an address decides which layers are shown, what of it one may not see, how to ask for it, and the way back. */
export function AddressNote({ address, shown }: { address: AddressLayers; shown: number }) {
  const [asking, setAsking] = useState(false)
  const count = address.missing.length
  return (
    <div className="flex flex-wrap items-center gap-x-4 border-b border-cement-300 bg-cement-200 px-4 py-1 text-[13px]">
      <p role="status">
        This address shows {shown === 0 ? 'none' : shown === 1 ? 'one' : shown} of your layers.
        {count > 0 &&
          ` ${count === 1 ? 'One calendar' : `${count} calendars`} in it ${count === 1 ? 'is' : 'are'} not on your wall.`}
      </p>
      {count > 0 && !asking && (
        <button type="button" onClick={() => setAsking(true)} className="font-bold underline">
          Ask for access
        </button>
      )}
      <button type="button" onClick={() => address.show(null)} className="font-bold underline">
        Show what I keep
      </button>
      {count > 0 && asking && <AskForm calendarIds={address.missing} onAsked={() => setAsking(false)} />}
    </div>
  )
}
