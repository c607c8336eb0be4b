import { Button } from '../../ui/Button'
import { useBroughtIntoView } from '../../ui/useBroughtIntoView'
import { useActs } from '../../undo/acts'

interface MadeLinkProps {
  url: string
  /** The address as an SVG picture. */
  qr: string
  onClose: () => void
}

/** A link that was just made, to copy, open or print. It is told this once. */
export function MadeLink({ url, qr, onClose }: MadeLinkProps) {
  const acts = useActs()
  const box = useBroughtIntoView<HTMLDivElement>()
  const copy = () =>
    navigator.clipboard.writeText(url).then(
      () => acts.done('The link is copied.'),
      () => acts.failed(new Error('The browser does not let this page copy. Mark the address and copy it.')),
    )
  return (
    <div ref={box} data-made-link="true" className="grid gap-2 border-2 border-ink bg-surface p-3">
      <p className="font-bold">Copy it now: for safety its address is not kept and cannot be shown again.</p>
      <input
        readOnly
        aria-label="Address of the link"
        value={url}
        onFocus={(event) => event.target.select()}
        className="w-full rounded-control border border-cement-500 bg-surface px-2 py-1.5 text-[12px]"
      />
      <img
        alt="The link as a QR code, to be read by a camera"
        src={`data:image/svg+xml;utf8,${encodeURIComponent(qr)}`}
        className="w-40 bg-white"
      />
      <div className="flex flex-wrap gap-2">
        <Button look="main" onClick={() => void copy()}>
          Copy the link
        </Button>
        <a
          href={`data:image/svg+xml;utf8,${encodeURIComponent(qr)}`}
          download="link.svg"
          className="rounded-control border border-cement-500 bg-surface px-3 py-1.5 hover:bg-cement-100"
        >
          Save the picture
        </a>
        <Button onClick={onClose}>Done</Button>
      </div>
    </div>
  )
}
