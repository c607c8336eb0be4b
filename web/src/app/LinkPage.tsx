import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { ChevronLeft, ChevronRight } from 'lucide-react'
import { type ReactNode, useState } from 'react'
import { Link as Anchor, useNavigate, useParams } from 'react-router'
import { Temporal } from 'temporal-polyfill'
import type { Schema } from '../api/client'
import { sentenceOf } from '../api/problem'
import { SignInForm } from '../features/accounts/SignInPage'
import type { Layer } from '../model/bricks'
import { roleName } from '../model/ladder'
import { linkQuery, linkWallQuery, ownLinkQuery, ownLinkWallQuery, takeByLink } from '../model/linkQueries'
import { addDays } from '../model/times'
import { longDayText } from '../reader/dates'
import { sessionQuery } from '../reader/session'
import { Alert } from '../ui/Alert'
import { Button } from '../ui/Button'
import { Gate } from '../ui/Gate'
import { IconButton } from '../ui/IconButton'
import { Logo } from '../ui/Logo'
import { MarkBlock } from '../ui/MarkSign'
import { AgendaList } from '../wall/agenda/AgendaList'

type Link = Schema['LinkWallBody']

/** How many days are shown at once. */
const span = 28

/** A calendar, or one event of it, read by a link: no account is needed. */
export function LinkPage() {
  const { secret = '' } = useParams()
  const link = useQuery(linkQuery(secret))
  const session = useQuery(sessionQuery)
  if (link.isError)
    return (
      <Gate title="This link leads nowhere">
        <p className="mb-4">{sentenceOf(link.error)}</p>
        <p className="text-cement-700">
          It may have ended or been renewed, or been cut short on its way. Ask whoever gave it to you for the
          one that holds now.
        </p>
      </Gate>
    )
  if (!link.data || !session.data) return null
  return (
    <Read
      link={link.data}
      today={session.data.now}
      wallOf={(from, to) => linkWallQuery(secret, from, to)}
      take={link.data.taken ? <Take secret={secret} link={link.data} me={session.data.person} /> : null}
    />
  )
}

/** The same as a coordinator sees it who wants to know what their link shows. */
export function OwnLinkPage() {
  const { calendarId = '', linkId = '' } = useParams()
  const link = useQuery(ownLinkQuery(calendarId, linkId))
  const session = useQuery(sessionQuery)
  if (link.isError)
    return (
      <Gate title="This link is not there">
        <p>{sentenceOf(link.error)}</p>
      </Gate>
    )
  if (!link.data || !session.data) return null
  return (
    <Read
      link={link.data}
      today={session.data.now}
      wallOf={(from, to) => ownLinkWallQuery(calendarId, linkId, from, to)}
      take={
        <p className="mt-4 border-l-4 border-ink pl-3">
          What somebody sees who opens this link.{' '}
          <Anchor to={`/week?desk=calendar~${calendarId}~access`} className="underline underline-offset-2">
            Back to your wall
          </Anchor>
        </p>
      }
    />
  )
}

interface ReadProps {
  link: Link
  /** What o'clock it is for Mortar. */
  today: string
  wallOf: (from: string, to: string) => ReturnType<typeof linkWallQuery>
  /** What can be done with it beside reading. */
  take: ReactNode
}

function Read({ link, today: instant, wallOf, take }: ReadProps) {
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
    <div className="flex h-full flex-col">
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
              },
            })}
          />
        </div>
      </main>
    </div>
  )
}

/** Putting the calendar on one's own wall, which takes a name. */
function Take({ secret, link, me }: { secret: string; link: Link; me: Schema['SessionPersonBody'] | null }) {
  const queries = useQueryClient()
  const navigate = useNavigate()
  const [signingIn, setSigningIn] = useState(false)
  const take = useMutation({
    mutationFn: () => takeByLink(secret),
    onSuccess: async () => {
      await queries.invalidateQueries()
      navigate('/week')
    },
  })
  if (link.isHere)
    return (
      <p className="mt-4">
        <Button look="link" onClick={() => navigate('/week')}>
          It is on your wall already
        </Button>
      </p>
    )
  if (!link.hasUsesLeft)
    return (
      <p className="mt-4 text-cement-700">
        As many people as this link is for have put it on their walls. It can still be read here.
      </p>
    )
  return (
    <div className="mt-4 grid max-w-md gap-2 print:hidden">
      {me ? (
        <div>
          <Button look="main" disabled={take.isPending} onClick={() => take.mutate()}>
            Put it on my wall
          </Button>
        </div>
      ) : signingIn ? (
        <SignInForm address="" />
      ) : (
        <div>
          <Button onClick={() => setSigningIn(true)}>Sign in to put it on your wall</Button>
        </div>
      )}
      {link.taken && link.taken !== link.role && (
        <p className="written text-[12px] text-cement-700">
          There you have the step {roleName(link.taken)}: {link.sentence}
        </p>
      )}
      {take.isError && <Alert>{sentenceOf(take.error)}</Alert>}
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
  may: { add: false, export: false, coordinate: false },
  shown: true,
  beside: false,
  calendar: { name: link.calendarName, hue: link.hue, mark: link.mark },
  version: 1,
})
