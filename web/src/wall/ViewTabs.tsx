import { spans, type View, views } from '../model/views'

interface ViewTabsProps {
  view: View
  span: number
  onView: (view: View) => void
  onSpan: (span: number) => void
}

/** The five views, and how many days the open one shows. */
export function ViewTabs({ view, span, onView, onSpan }: ViewTabsProps) {
  const choices = spans[view]
  return (
    <div className="flex items-center gap-1 max-sm:order-last max-sm:w-full">
      <nav aria-label="Views" className="flex max-sm:flex-1">
        {views.map((one, index) => (
          <button
            key={one.value}
            type="button"
            aria-current={one.value === view ? 'page' : undefined}
            title={`${one.label}  Alt+${index + 1}`}
            onClick={() => onView(one.value)}
            className="rounded-control px-2 py-1 hover:bg-on-bar/15 aria-[current=page]:bg-on-bar aria-[current=page]:font-bold aria-[current=page]:text-bar max-sm:flex-1 max-sm:px-1 max-sm:text-[13px]"
          >
            {one.label}
          </button>
        ))}
      </nav>
      {choices.length > 1 && (
        <select
          aria-label="How many days"
          value={span}
          onChange={(event) => onSpan(Number(event.target.value))}
          className="rounded-control border border-on-bar/40 bg-bar px-1 py-1 text-[12px] text-on-bar max-sm:hidden"
        >
          {[...new Set([...choices, span])]
            .toSorted((a, b) => a - b)
            .map((days) => (
              <option key={days} value={days}>
                {spanText(days)}
              </option>
            ))}
        </select>
      )}
    </div>
  )
}

const spanText = (days: number): string =>
  days === 1
    ? '1 day'
    : days % 7 === 0 && days > 7
      ? `${days / 7} weeks`
      : days === 7
        ? '1 week'
        : `${days} days`
