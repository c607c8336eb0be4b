import type { Layer } from '../model/bricks'
import { MarkBlock } from '../ui/MarkSign'

/** What stands over the wall on paper: whose it is, when, and what the marks mean. */
export function PrintHead({
  group,
  title,
  layers,
}: {
  group: string | undefined
  title: string
  layers: Iterable<Layer>
}) {
  return (
    <div className="hidden items-baseline gap-x-6 gap-y-1 px-2 pb-2 print:flex print:flex-wrap">
      <h1 className="text-lg">{group ? `${group}, ${title}` : title}</h1>
      <ul className="flex flex-wrap gap-x-3 text-[11px]">
        {[...layers].map((layer) => (
          <li key={layer.calendarId} data-hue={layer.hue} className="flex items-center gap-1">
            <MarkBlock mark={layer.mark} size={14} />
            {layer.name}
          </li>
        ))}
      </ul>
    </div>
  )
}
