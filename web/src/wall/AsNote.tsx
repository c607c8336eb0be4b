import type { Layer } from '../model/bricks'
import { roleName } from '../model/ladder'
import { MarkBlock } from '../ui/MarkSign'

/** Says through whose eyes one looks, at which of one's calendars, and the way back. */
export function AsNote({
  name,
  layers,
  onBack,
}: {
  name: string
  layers: readonly Layer[]
  onBack: () => void
}) {
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-1 border-t-2 border-ink bg-cement-100 px-4 py-2">
      <p role="status" className="written">
        What <b>{name}</b> sees of the calendars you coordinate
        {layers.length === 0 ? ': nothing.' : ', on your clock:'}
      </p>
      <ul className="flex flex-wrap gap-2">
        {layers.map((layer) => (
          <li
            key={layer.calendarId}
            data-hue={layer.hue}
            className="flex items-stretch border border-layer-edge bg-layer-tint text-layer-text"
          >
            <MarkBlock mark={layer.mark} size={22} />
            <span className="written px-2 py-0.5">
              {layer.name}: <b>{roleName(layer.role)}</b>
            </span>
          </li>
        ))}
      </ul>
      <button type="button" onClick={onBack} className="ml-auto font-bold underline underline-offset-2">
        Back to your own wall
      </button>
    </div>
  )
}
