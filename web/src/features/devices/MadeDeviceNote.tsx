import { useReader } from '../../reader/person'
import { Button } from '../../ui/Button'
import { CopyField } from '../../ui/CopyField'
import { useBroughtIntoView } from '../../ui/useBroughtIntoView'
import type { MadeDevice } from './deviceQueries'

/** What to type where in a calendar program; its key is told this once. */
export function MadeDeviceNote({ made, onClose }: { made: MadeDevice; onClose: () => void }) {
  const shown = useBroughtIntoView<HTMLDivElement>()
  const { person } = useReader()
  return (
    <section
      ref={shown}
      tabIndex={-1}
      aria-label="What to type on the device"
      data-made-device="true"
      className="mb-4 grid gap-3 border-2 border-ink bg-surface p-3"
    >
      <h3 className="text-base">What to type on the device</h3>
      <ol className="grid list-decimal gap-3 pl-5">
        <li>
          Open its calendar program, or its settings for accounts, and add a calendar account by address. It
          may be called a CalDAV account, or be found under “other”.
        </li>
        <li>
          <CopyField label="Server" text={made.server} />
        </li>
        <li>
          <CopyField label="User" text={person.address ?? person.name} />
        </li>
        <li>
          <CopyField label="Password" text={made.key ?? ''} />
          <p>
            <strong>Copy it now: it is not shown again.</strong> It is the key of this device, and not your
            own password.
          </p>
        </li>
        <li>Say what is to be shown: your calendars come by themselves, in the order of your shelf.</li>
      </ol>
      <div className="flex flex-wrap items-end justify-between gap-3">
        {made.qr && (
          <figure className="flex items-end gap-3">
            <img
              alt="Server and key as a code to be read by a camera"
              src={`data:image/svg+xml,${encodeURIComponent(made.qr)}`}
              className="size-36 bg-white"
            />
            <figcaption className="max-w-40 text-[12px] text-cement-700">
              For a phone: its camera reads server and key, to be copied from there.
            </figcaption>
          </figure>
        )}
        <Button onClick={onClose}>It is set up</Button>
      </div>
    </section>
  )
}
