import { useQuery } from '@tanstack/react-query'
import { ChevronLeft, ChevronRight } from 'lucide-react'
import { type ReactNode, useState } from 'react'
import type { Schema } from '../api/client'
import { sentenceOf } from '../api/problem'
import type { Layer } from '../model/bricks'
import type { linkWallQuery } from '../model/linkQueries'
import { addDays } from '../model/times'
import { longDayText } from '../reader/dates'
import { Alert } from '../ui/Alert'
import { Button } from '../ui/Button'
import { IconButton } from '../ui/IconButton'
import { Logo } from '../ui/Logo'
import { MarkBlock } from '../ui/MarkSign'
import { AgendaList } from '../wall/agenda/AgendaList'

type Link = Schema['LinkWallBody']

/** How many days are shown at once. */
const span = 28

interface ReadProps {
  link: Link
  /** What o'clock it is for Mortar. */
  today: string
  wallOf: (from: string, to: string) => ReturnType<typeof linkWallQuery>
  /** What can be done with it beside reading. */
  take: ReactNode
}

/** What a link shows, some weeks at once. */
export function LinkReading({ link, today: instant, wallOf, take }: ReadProps) {
  const now = Temporal.Instant.from(instant).toZonedDateTimeISO(link.zone).toPlainDateTime().toString()
  const today = now.slice(0, 10)
  const start = link.eventDay ?? today
  const [from, setFrom] = useState(start)
  const to = addDays(from, link.eventDay ? 0 : span - 1)
  const wall = useQuery(wallOf(from, to))
  const layer = asLayer(link)
  const names = new Map((wall.data?.people ?? []).map((one) => [one.personId, one.name]))
  const days = Array.from({ length: link.eventDay ? 1 : span }, (_, index) => addDays(from, index))
  return (
    <div className="page">
      <header className="flex items-center gap-3 bg-bar px-5 py-2.5 text-on-bar max-sm:px-3">
        <Logo size={26} />
        <span className="font-head font-bold">Mortar</span>
      </header>
      <main className="min-h-0 flex-1 overflow-y-auto bg-surface" data-scroller="true">
        <div className="mx-auto max-w-3xl px-6 py-6 max-sm:px-3">
          <div data-hue={link.hue} className="flex items-stretch gap-3 text-layer-text">
            <MarkBlock mark={link.mark} size={40} />
            <div className="min-w-0">
              <h1 className="written text-2xl">{link.calendarName}</h1>
              <p className="written text-cement-700">
                {link.groupName} · on the clock of {link.zone.split('/').at(-1)?.replaceAll('_', ' ')}
                {link.lastDay && ` · this link holds until ${longDayText(link.lastDay)}`}
              </p>
            </div>
          </div>
          {take}
          {link.eventDay ? (
            <div className="mt-6" />
          ) : (
            <nav aria-label="Days" className="mt-5 mb-3 flex items-center gap-2">
              <IconButton label="Four weeks earlier" onClick={() => setFrom(addDays(from, -span))}>
                <ChevronLeft size={16} aria-hidden="true" />
              </IconButton>
              <p className="font-bold" aria-live="polite">
                {longDayText(from)} to {longDayText(to)}
              </p>
              <IconButton label="Four weeks later" onClick={() => setFrom(addDays(from, span))}>
                <ChevronRight size={16} aria-hidden="true" />
              </IconButton>
              {from !== start && (
                <Button look="link" onClick={() => setFrom(start)}>
                  Now
                </Button>
              )}
            </nav>
          )}
          {wall.isError && <Alert>{sentenceOf(wall.error)}</Alert>}
          {wall.data && wall.data.bricks.length === 0 && (
            <p className="py-10 text-cement-700">
              {link.eventDay ? 'This event is no longer in the plan.' : 'Nothing on these days.'}
            </p>
          )}
          <AgendaList
            days={days}
            now={now}
            zone={link.zone}
            bricks={wall.data?.bricks ?? []}
            names={names}
            withNotes
            face={(brick) => ({
              brick,
              layer,
              acts,
              state: {
                past: false,
                chosen: false,
                marked: false,
                clash: undefined,
                whose: undefined,
                found: undefined,
                fate: undefined,
              },
            })}
          />
        </div>
      </main>
    </div>
  )
}

const acts = { onOpen: () => undefined, onMark: () => undefined, onBrickKey: () => undefined }

/** What a brick needs to know of the calendar it is in. */
const asLayer = (link: Link): Layer => ({
  calendarId: link.calendarId,
  groupId: '',
  groupName: link.groupName,
  name: link.calendarName,
  description: null,
  hue: link.hue,
  mark: link.mark,
  zone: link.zone,
  purpose: 'events',
  groupDefault: null,
  takes: 'nobody',
  person: null,
  oneAtATime: false,
  agreed: false,
  kinds: [],
  role: link.role,
  ways: ['link'],
  stays: 'none',
  may: { add: false, export: false, history: false, coordinate: false },
  shown: true,
  beside: false,
  offShelf: false,
  calendar: { name: link.calendarName, hue: link.hue, mark: link.mark },
  web: null,
  version: 1,
})
