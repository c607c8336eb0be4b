import { useQuery } from '@tanstack/react-query'
import { useMemo, useState } from 'react'
import { useNavigate, useParams, useSearchParams } from 'react-router'
import type { Schema } from '../../api/client'
import { sentenceOf } from '../../api/problem'
import { useActs } from '../../app/acts'
import { clockText, dayText } from '../../app/dates'
import { useReader } from '../../app/person'
import { TopBar } from '../../app/TopBar'
import { Button } from '../../ui/Button'
import { brickOf, differences, type EventForm, formOf, newForm } from '../events/eventForm'
import { useEventActs } from '../events/useEventActs'
import { GroupMenu } from '../groups/GroupMenu'
import { groupQueries, keepLastGroup, lastGroup } from '../groups/groupQueries'
import { Shelf } from '../shelf/Shelf'
import { shelfQuery } from '../shelf/shelfQuery'
import { type Brick, brickKey, type EventBrick, eventKey, type Layer, type Time, titleOf } from './bricks'
import { type DeskPlace, deskText, readDesk } from './deskPlace'
import { KeyList } from './KeyList'
import { keepLastCalendar, layerToMakeIn } from './makeIn'
import { PeriodNav } from './PeriodNav'
import { addDays, dateNamed, dateOf, daysFrom, daysOf, localAt, weekOf } from './times'
import { useCarry } from './useCarry'
import { useDays } from './useDays'
import { useKeys } from './useKeys'
import { useNow } from './useNow'
import { WallDesk } from './WallDesk'
import { WeekView } from './WeekView'
import { wallQuery } from './wallQuery'

type Group = Schema['GroupsGroupBody']

const noLayers: Layer[] = []

/** The wall: everything in view laid over time, the shelf under it, the desk beside it. */
export function WallPage() {
  const { person } = useReader()
  const acts = useActs()
  const navigate = useNavigate()
  const now = useNow()
  const date = dateNamed(useParams().date) ?? dateOf(now)
  const [search, setSearch] = useSearchParams()
  const count = useDays()
  const first = count === 7 ? weekOf(date) : date
  const days = useMemo(() => daysFrom(first, count), [first, count])
  const last = days.at(-1) ?? first

  const shelf = useQuery(shelfQuery)
  const groups = useQuery(groupQueries.list)
  const wall = useQuery(wallQuery(first, last))
  const layers = shelf.data ?? noLayers
  const group =
    groups.data?.find((one) => one.id === (search.get('group') ?? lastGroup())) ??
    busiest(groups.data ?? [], layers)

  const [form, setForm] = useState<EventForm | null>(null)
  const [met, setMet] = useState<EventForm | null>(null)
  const { write } = useEventActs()
  const desk = readDesk(search.get('desk'))

  const byId = useMemo(
    () => new Map(layers.filter((layer) => layer.shown).map((layer) => [layer.calendarId, layer])),
    [layers],
  )
  const bricks = useMemo(
    () => (wall.data?.bricks ?? []).filter((brick) => byId.has(brick.calendarId)),
    [wall.data, byId],
  )
  const makeIn = layerToMakeIn(layers, group?.id)

  const place = (next: DeskPlace | null, extra: Record<string, string> = {}) =>
    setSearch(
      (before) => {
        const after = new URLSearchParams(before)
        if (next) after.set('desk', deskText(next))
        else after.delete('desk')
        for (const [key, value] of Object.entries(extra)) after.set(key, value)
        return after
      },
      { replace: true },
    )
  /** Closes the desk; what was written and not saved can be brought back. */
  const leaveDesk = () => {
    const left = desk?.kind === 'writing' ? form : null
    closeDesk()
    if (left && isWritten(left, bricks))
      acts.offer(`“${titleOf(left.title)}” was not saved.`, 'Bring it back', () => openForm(left))
  }
  const closeDesk = () => {
    setForm(null)
    setMet(null)
    place(null)
  }
  const goTo = (day: string) => navigate({ pathname: `/week/${day}`, search: search.toString() })

  const openForm = (next: EventForm, theirs: EventForm | null = null) => {
    setForm(next)
    setMet(theirs)
    place({ kind: 'writing' })
  }
  const openBrick = (brick: Brick) => {
    if (brick.kind === 'busy') {
      acts.done('Only the times of this calendar are shared with you: it is busy then.')
      return
    }
    if (brick.mayChange) openForm(formOf(brick))
    else {
      setForm(null)
      place({ kind: 'event', key: eventKey(brick.eventId, brick.only) })
    }
  }
  const make = (time: Time) => {
    if (!makeIn) {
      acts.done('There is no calendar you can add to. Make one, or ask a coordinator for the step Add.')
      return
    }
    openForm(newForm(makeIn.calendarId, time))
  }
  const change = async (brick: EventBrick, time: Time) => {
    if (JSON.stringify(time) === JSON.stringify(brick.time)) return
    const wish = { ...formOf(brick), time }
    const written = await write(
      wish,
      `${whatChanged(brick, time)}${brick.repeats ? ', this date only' : ''}.`,
    )
    if (written.kind === 'stale') openForm(wish, written.theirs)
    else if (form && brickKey(brick) === brickKey(brickOf(form))) closeDesk()
  }
  const { carry, onBrickKey } = useCarry(
    (brick, time) => void change(brick, time),
    (sentence) => acts.done(sentence),
  )
  const newCalendar = () => {
    setForm(null)
    place({ kind: 'newCalendar' })
  }
  const firstHere = days.includes(dateOf(now)) ? dateOf(now) : first
  const makeNew = () =>
    make({ form: 'clock', start: localAt(firstHere, 540), end: localAt(firstHere, 600), zone: person.zone })
  useKeys({
    '[': () => goTo(addDays(first, -count)),
    ']': () => goTo(addDays(first, count)),
    '.': () => goTo(dateOf(now)),
    n: makeNew,
    z: acts.undo,
    l: () => document.querySelector<HTMLElement>('nav[aria-label="Shelf"] button')?.focus(),
    '?': () => place({ kind: 'keys' }),
    Escape: leaveDesk,
  })

  const carried = carry
    ? { ...carry.brick, time: carry.time }
    : desk?.kind === 'writing' && form
      ? brickOf(form)
      : null
  const chosen = carried ? brickKey(carried) : desk?.kind === 'event' ? desk.key : null
  return (
    <div className="flex h-full flex-col">
      <TopBar>
        <GroupMenu
          groups={groups.data ?? []}
          open={group}
          onOpen={(groupId) => {
            keepLastGroup(groupId)
            place(null, { group: groupId })
          }}
          onNewCalendar={newCalendar}
          onNewGroup={() => place({ kind: 'newGroup' })}
        />
        <PeriodNav
          first={first}
          last={last}
          onMove={(steps) => goTo(addDays(first, steps * count))}
          onNow={() => goTo(dateOf(now))}
        />
        <button
          type="button"
          title="New event  N"
          onClick={makeNew}
          className="rounded-control bg-on-bar px-3 py-1 font-bold text-bar"
        >
          New<span className="max-sm:sr-only"> event</span>
        </button>
      </TopBar>
      <main className="flex min-h-0 flex-1">
        {shelf.isSuccess && layers.length === 0 ? (
          <EmptyWall
            hasGroup={group !== undefined}
            onNewCalendar={newCalendar}
            onNewGroup={() => place({ kind: 'newGroup' })}
          />
        ) : (
          <WeekView
            days={days}
            zone={person.zone}
            now={now}
            bricks={bricks}
            layers={byId}
            makeIn={makeIn}
            draft={carried}
            chosen={chosen}
            onOpen={openBrick}
            onMake={make}
            onChange={(brick, time) => void change(brick, time)}
            onBrickKey={onBrickKey}
          />
        )}
        {wall.isError && (
          <p
            role="alert"
            className="absolute top-1/2 left-1/2 -translate-x-1/2 bg-surface p-4 text-clash shadow-lg"
          >
            {sentenceOf(wall.error)}
          </p>
        )}
        {desk?.kind === 'keys' && <KeyList onClose={closeDesk} />}
        {desk && desk.kind !== 'keys' && (
          <WallDesk
            place={desk}
            layers={layers}
            group={group}
            form={form}
            met={met}
            onForm={(next) => {
              keepLastCalendar(next.calendarId)
              setForm(next)
            }}
            onMet={setMet}
            onPlace={place}
            onGroup={(groupId) => {
              keepLastGroup(groupId)
              place({ kind: 'newCalendar' }, { group: groupId })
            }}
            onClose={closeDesk}
            onLeave={leaveDesk}
          />
        )}
      </main>
      <Shelf
        layers={layers}
        groupId={group?.id}
        onOpen={(calendarId, part) => {
          setForm(null)
          place({ kind: 'calendar', calendarId, part })
        }}
        onNewCalendar={newCalendar}
      />
    </div>
  )
}

/** Whether a form holds something that the wall does not. */
function isWritten(form: EventForm, bricks: readonly Brick[]): boolean {
  if (form.version === null) return form.title !== '' || form.notes !== '' || form.place !== ''
  const there = bricks.find((brick): brick is EventBrick => brickKey(brick) === brickKey(brickOf(form)))
  return there !== undefined && differences(form, formOf(there)).length > 0
}

/** Says whether a brick went elsewhere or was lengthened. */
function whatChanged(brick: EventBrick, time: Time): string {
  const [before, after] = [daysOf(brick.time), daysOf(time)]
  const lengthened =
    time.form === 'days' || brick.time.form === 'days'
      ? before.first === after.first
      : brick.time.start === time.start
  if (!lengthened) return `Moved “${titleOf(brick.title)}” to ${dayText(after.first)}`
  return `“${titleOf(brick.title)}” lasts until ${time.form === 'days' ? dayText(after.last) : clockText(time.end)} now`
}

/** The group one has most to do with: the one to begin in. */
const busiest = (groups: readonly Group[], layers: readonly Layer[]): Group | undefined =>
  groups.toSorted((a, b) => layersOf(b, layers) - layersOf(a, layers))[0]

const layersOf = (group: Group, layers: readonly Layer[]): number =>
  layers.filter((layer) => layer.groupId === group.id).length

function EmptyWall({
  hasGroup,
  onNewCalendar,
  onNewGroup,
}: {
  hasGroup: boolean
  onNewCalendar: () => void
  onNewGroup: () => void
}) {
  return (
    <div className="grid flex-1 place-content-center justify-items-center gap-3 p-8 text-center">
      <h2 className="text-xl">Nothing on your wall yet</h2>
      <p className="max-w-sm text-cement-700">
        {hasGroup
          ? 'Make the first calendar of your group, or wait for an invitation: it arrives in your inbox.'
          : 'Make a group first: a staff team, a class, a club or a family. Its calendars come next.'}
      </p>
      <Button look="main" onClick={hasGroup ? onNewCalendar : onNewGroup}>
        {hasGroup ? 'Make a calendar' : 'Make a group'}
      </Button>
    </div>
  )
}
