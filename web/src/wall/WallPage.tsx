import { Suspense, useRef } from 'react'
import { Navigate, useParams } from 'react-router'
import { sentenceOf } from '../api/problem'
import { writeMoment } from '../features/history/momentPlace'
import { Shelf } from '../features/shelf/Shelf'
import { isView, type View, views } from '../model/views'
import { monthText, periodText } from '../reader/dates'
import { lazyNamed } from '../ui/lazyNamed'
import { useTitle } from '../ui/useTitle'
import { useSwipe } from './hand/useSwipe'
import { useWallKeys } from './hand/useWallKeys'
import { PrintHead } from './PrintHead'
import { WallRibbon } from './ribbon/WallRibbon'
import { useSaid } from './useSaid'
import { useWall, type Wall, WallProvider } from './useWall'
import { WallBar } from './WallBar'
import { WallNotes } from './WallNotes'
import { WallView } from './WallView'

// Few walls have any of these.
const RestNote = lazyNamed(() => import('../features/groups/RestNote'), 'RestNote')
const MomentNote = lazyNamed(() => import('../features/history/MomentNote'), 'MomentNote')
const AsNote = lazyNamed(() => import('./AsNote'), 'AsNote')
const MarksBar = lazyNamed(() => import('./hand/MarksBar'), 'MarksBar')

const loadDesk = () => import('./desk/WallDesk')
const WallDesk = lazyNamed(loadDesk, 'WallDesk')
// The wall is there before; when it is, so that nobody waits for it on the first press.
if (typeof requestIdleCallback === 'function') requestIdleCallback(() => void loadDesk())

/** The wall: everything in view laid over time, the ribbon over it, the shelf under it, the desk beside it. */
export function WallPage() {
  const { view } = useParams()
  return isView(view) ? <OpenWall view={view} /> : <Navigate to="/roster" replace />
}

function OpenWall({ view }: { view: View }) {
  const wall = useWall(view)
  const { at, group, read } = wall
  useWallKeys(wall)
  const main = useRef<HTMLElement>(null)
  useSwipe(main, at.step)
  const title = view === 'month' ? monthText(at.date) : periodText(at.period.first, at.period.last)
  const label = views.find((one) => one.value === view)?.label ?? ''
  useTitle([label, title, group?.name].filter(Boolean).join(', '))
  useSaid(`${label}, ${title}`, read.isHere)
  return (
    <div className="page">
      <WallBar wall={wall} title={title} />
      {!at.as && !wall.isAtRest && <WallRibbon wall={wall} />}
      <PrintHead group={group?.name} title={title} layers={read.byId.values()} />
      <WallNotes {...wall} />
      <main
        ref={main}
        className="relative flex min-h-0 flex-1"
        data-fills="true"
        data-waits={!read.isHere}
        aria-busy={!read.isHere}
      >
        <Suspense fallback={<section aria-label="Wall" className="flex-1 bg-surface" />}>
          <WallView wall={wall} />
        </Suspense>
        <Suspense>
          <Marked wall={wall} />
        </Suspense>
        {read.error && (
          <p
            role="alert"
            className="absolute top-1/2 left-1/2 -translate-x-1/2 bg-surface p-4 text-clash shadow-lg"
          >
            {sentenceOf(read.error)}
          </p>
        )}
        <WallProvider value={wall}>
          <Suspense>{at.desk && <WallDesk place={at.desk} />}</Suspense>
        </WallProvider>
      </main>
      <UnderWall wall={wall} />
    </div>
  )
}

function Marked({ wall: { marks, layers } }: { wall: Wall }) {
  if (marks.count === 0) return null
  return (
    <MarksBar
      count={marks.count}
      away={marks.away}
      hasSeries={marks.hasSeries}
      layers={layers}
      onDelete={() => void marks.deleteAll()}
      onPutIn={(layer) => void marks.putIn(layer)}
      onCopy={(days) => void marks.copyBy(days)}
      onClear={marks.clear}
    />
  )
}

/** The shelf; or through whose eyes, in which resting group or at which moment one looks, and the way back. */
function UnderWall({ wall: { at, draft, ...wall } }: { wall: Wall }) {
  if (at.as)
    return (
      <Suspense>
        <AsNote name={wall.asName} layers={wall.layers} onBack={() => at.place(null, { as: null })} />
      </Suspense>
    )
  if (wall.isAtRest && wall.group)
    return (
      <Suspense>
        <RestNote group={wall.group} layers={wall.layers} onBack={() => at.place(null, { group: null })} />
      </Suspense>
    )
  const { moment } = at
  if (moment)
    return (
      <Suspense>
        <MomentNote
          moment={moment}
          layer={wall.layers.find((layer) => layer.calendarId === moment.calendarId)}
          first={at.period.first}
          last={at.period.last}
          onMoment={(to) => at.place(null, { moment: writeMoment({ ...moment, at: to }) })}
          onDay={at.goTo}
          onEnd={() => at.place(null, { moment: null })}
        />
      </Suspense>
    )
  return (
    <Shelf
      layers={wall.layers}
      address={wall.address}
      groupId={wall.group?.id}
      groupName={wall.group?.name}
      people={wall.people}
      who={at.who}
      onWho={(next) => at.place(at.desk, { who: next.length > 0 ? next.join(' ') : null })}
      onOpen={(calendarId, part) =>
        draft.put(part === 'look' ? { kind: 'look', calendarId } : { kind: 'calendar', calendarId, part })
      }
      onNewCalendar={() => draft.put({ kind: 'newCalendar' })}
      hasDesk={at.desk !== null}
    />
  )
}
