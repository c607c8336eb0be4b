import { Button } from '../../ui/Button'
import { CopyField } from '../../ui/CopyField'
import { useBroughtIntoView } from '../../ui/useBroughtIntoView'
import type { MadeFeed } from './feedQueries'

/** The address of a feed, told once. */
export function MadeFeedNote({ made, onClose }: { made: MadeFeed; onClose: () => void }) {
  const shown = useBroughtIntoView<HTMLDivElement>()
  return (
    <div
      ref={shown}
      tabIndex={-1}
      data-made-feed="true"
      className="mb-4 grid grid-cols-[minmax(0,1fr)_auto] gap-3 border-2 border-ink bg-surface p-3 max-sm:grid-cols-1"
    >
      <div className="grid content-start gap-2">
        <p className="font-bold">Copy it now: it is not shown again.</p>
        <CopyField label="Its address" text={made.url ?? ''} />
        <p className="flex flex-wrap items-center gap-3">
          {made.subscribe && (
            <a href={made.subscribe} className="underline underline-offset-2">
              Open it in the calendar program of this device
            </a>
          )}
          <Button onClick={onClose}>I have it</Button>
        </p>
      </div>
      {made.qr && (
        <img
          alt="The address as a code to be read by a camera"
          src={`data:image/svg+xml,${encodeURIComponent(made.qr)}`}
          className="size-32 bg-white"
        />
      )}
    </div>
  )
}
