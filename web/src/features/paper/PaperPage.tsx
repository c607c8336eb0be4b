import { useQuery } from '@tanstack/react-query'
import { useRef, useState } from 'react'
import { useSearchParams } from 'react-router'
import { BarTitle } from '../../frame/BarTitle'
import { TopBar } from '../../frame/TopBar'
import { groupQueries } from '../../model/groupQueries'
import { shelfQuery } from '../../model/shelfQuery'
import { useReader } from '../../reader/person'
import { isoDay } from '../../reader/preferences'
import { useNow } from '../../reader/useNow'
import { Button } from '../../ui/Button'
import { useSettled } from '../../ui/useSettled'
import { useTitle } from '../../ui/useTitle'
import { PaperFields } from './PaperFields'
import { type PaperWish, readWish, sheetsAddress, writeWish } from './paperWish'

/** What is printed: on the left what goes on it, on the right the sheets as they will lie in the tray. */
export function PaperPage() {
  useTitle('Print')
  const { preferences } = useReader().person
  const [search, setSearch] = useSearchParams()
  const groups = useQuery(groupQueries.list)
  const shelf = useQuery(shelfQuery)
  const frame = useRef<HTMLIFrameElement>(null)
  const [drawn, setDrawn] = useState<{ address: string; count: number; refused: string }>()
  const today = useNow().slice(0, 10)
  const [wished, setWished] = useState(() => readWish(search, today, isoDay(preferences.firstDay)))
  const group = groups.data?.find((one) => one.id === wished.group) ?? groups.data?.[0]
  const wish = { ...wished, group: group?.id ?? '' }
  const layers = (shelf.data ?? []).filter((one) => !group || one.groupId === group.id)
  const address = useSettled(
    sheetsAddress(
      wish,
      layers.map((one) => one.calendarId),
    ),
  )
  const isReady = groups.isSuccess && shelf.isSuccess
  // The address follows, so that it can be sent on and reloaded; what is typed does not wait for it.
  const change = (part: Partial<PaperWish>) => {
    const next = { ...wish, ...part }
    setWished(next)
    setSearch(writeWish(next), { replace: true, preventScrollReset: true })
  }
  const look = () => {
    const page = frame.current?.contentDocument
    if (!page) return
    const count = page.querySelectorAll('.sheet').length
    setDrawn({ address, count, refused: count === 0 ? refusalIn(page) : '' })
  }
  const isDrawn = drawn?.address === address
  return (
    <div className="page">
      <TopBar>
        <BarTitle text={`Print${group ? `: ${group.name}` : ''}`} />
      </TopBar>
      <main className="flex min-h-0 flex-1 max-sm:flex-col max-sm:overflow-y-auto" data-fills="true">
        <div className="w-92 shrink-0 overflow-y-auto border-r border-cement-300 bg-surface px-4 py-4 max-sm:w-full max-sm:border-r-0">
          <PaperFields wish={wish} groups={groups.data ?? []} layers={layers} onChange={change} />
        </div>
        <section
          aria-label="The sheets"
          className="flex min-h-0 min-w-0 flex-1 flex-col max-sm:h-[80vh] max-sm:shrink-0"
        >
          <div className="flex flex-wrap items-center gap-3 border-b border-cement-300 bg-surface px-4 py-2.5">
            <Button
              look="main"
              disabled={!isDrawn || drawn.count === 0}
              onClick={() => frame.current?.contentWindow?.print()}
            >
              Print
            </Button>
            <p role="status" className="text-cement-700">
              {isDrawn ? drawn.refused || countText(drawn.count, wish) : 'Drawing the sheets'}
            </p>
            <a
              href={address}
              target="_blank"
              rel="noreferrer"
              className="ml-auto text-[13px] underline underline-offset-2"
            >
              Open by itself
            </a>
          </div>
          {isReady && (
            <iframe
              ref={frame}
              title="The sheets as they print"
              src={address}
              onLoad={look}
              className="min-h-0 w-full flex-1 border-0 bg-cement-300"
            />
          )}
        </section>
      </main>
    </div>
  )
}

const countText = (count: number, { size, across }: PaperWish): string =>
  `${count} ${count === 1 ? 'sheet' : 'sheets'} of ${size === 'a4' ? 'A4' : 'Letter'}, ${across ? 'across' : 'upright'}. To keep it as a file, choose PDF where the printer is chosen.`

/** Why there are no sheets, in the words of the problem that came instead of them (RFC 9457). */
function refusalIn(page: Document): string {
  try {
    const problem: unknown = JSON.parse(page.body.textContent ?? '')
    if (typeof problem === 'object' && problem !== null && 'detail' in problem) return String(problem.detail)
  } catch {
    // It was no problem either: the line was cut, or somebody else answered.
  }
  return 'The sheets could not be drawn. Try again.'
}
