import type { Layer } from '../model/bricks'
import { MarkBlock } from '../ui/MarkSign'

/** What stands over the wall on paper where the browser prints the screen: whose it is, when, what the marks mean, and how one comes to sheets. */
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
      <p className="text-[11px]">
        Printed from the screen. Print (P) makes sheets of it, with all that is in it.
      </p>
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
