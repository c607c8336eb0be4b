import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { sentenceOf } from '../../api/problem'
import { momentText } from '../../reader/dates'
import { Alert } from '../../ui/Alert'
import { Button } from '../../ui/Button'
import { Note } from '../../ui/Note'
import { Question } from '../../ui/Question'
import { useAct } from '../../undo/useAct'
import { type Device, devicesQuery, endDevice, type MadeDevice } from './deviceQueries'
import { toldOf } from './deviceSteps'
import { MadeDeviceNote } from './MadeDeviceNote'
import { NewDeviceForm } from './NewDeviceForm'

/** One's devices: calendar programs that read and write with a key of their own. */
export function DevicesPart() {
  const devices = useQuery(devicesQuery)
  const [made, setMade] = useState<MadeDevice | null>(null)
  const close = () => {
    setMade(null)
    // Whoever has set it up wants to see that it came.
    void devices.refetch()
  }
  return (
    <section id="devices" aria-label="Devices" className="mx-auto max-w-2xl px-6 py-6 max-sm:px-3">
      <h2 className="mb-1 text-xl">Devices</h2>
      <Note>
        The calendar program of your phone or computer shows the calendars of your shelf, and writes into
        those you may write in. Each device gets a key of its own, which you can end by itself; your password
        stays here.
      </Note>
      {devices.isError && <Alert>{sentenceOf(devices.error)}</Alert>}
      <ul className="my-3 grid gap-2">
        {devices.data?.map((device) => (
          <DeviceLine key={device.id} device={device} onEnded={() => setMade(null)} />
        ))}
      </ul>
      {made?.key && <MadeDeviceNote made={made} onClose={close} />}
      <NewDeviceForm onMade={setMade} />
    </section>
  )
}

function DeviceLine({ device, onEnded }: { device: Device; onEnded: () => void }) {
  const [isEnding, setEnding] = useState(false)
  const end = useAct({
    run: () => endDevice(device.id),
    say: () => `The key of “${device.name}” opens nothing any more.`,
    isFinal: () => true,
    freshen: ['devices'],
    onDone: onEnded,
  })
  return (
    <li className="flex flex-wrap items-center gap-x-3 gap-y-1 border border-cement-300 bg-surface px-3 py-2">
      <span className="written min-w-0 flex-1">
        <strong>{device.name}</strong>, {toldOf(device.role)}
        <span className="block break-words text-[12px] text-cement-700">
          {device.seenAt ? `last used ${momentText(device.seenAt)}` : 'not used yet'}
          {device.program && `, by ${device.program}`}
        </span>
      </span>
      <Button look="danger" onClick={() => setEnding(true)}>
        End it
      </Button>
      {isEnding && (
        <Question
          title={`End the key of “${device.name}”?`}
          yes="End it"
          onYes={() => end.mutate()}
          onClose={() => setEnding(false)}
        >
          The device reads and writes nothing any more, from this moment on. What it wrote stays.
        </Question>
      )}
    </li>
  )
}
