import { useQuery, useQueryClient } from '@tanstack/react-query'
import { Search as SearchSign } from 'lucide-react'
import { useCallback, useEffect, useEffectEvent, useMemo, useState } from 'react'
import { Navigate, useNavigate, useParams, useSearchParams } from 'react-router'
import type { Schema } from '../api/client'
import { sentenceOf } from '../api/problem'
import { useLowWeeks } from '../features/availability/useLowWeeks'
import type { ReachAsked } from '../features/events/EventDesk'
import { useEventActs } from '../features/events/useEventActs'
import { useSight } from '../features/events/useSight'
import { GroupMenu } from '../features/groups/GroupMenu'
import { Shelf } from '../features/shelf/Shelf'
import { TopBar } from '../frame/TopBar'
import { accessTableQuery } from '../model/accessQueries'
import type { Gap } from '../model/availabilityQueries'
import {
  type Brick,
  blankBrick,
  brickKey,
  clashesOf,
  type EventBrick,
  eventKey,
  type Layer,
  timeOf,
  titleOf,
} from '../model/bricks'
import { brickOf, differences, type EventForm, formOf, newForm } from '../model/eventForm'
import { groupQueries, keepLastGroup, lastGroup } from '../model/groupQueries'
import { bookableOf, layerToMakeIn, placesOf, placeText } from '../model/makeIn'
import { shelfAsQuery, shelfQuery } from '../model/shelfQuery'
import { addDays, dateOf, daysOf, isPast, localAt, minuteOf, nextHalfHour } from '../model/times'
import { useAddressLayers } from '../model/useAddressLayers'
import { isView, type View, views, weekStart } from '../model/views'
import { dayText, monthText, periodText } from '../reader/dates'
import { useReader } from '../reader/person'
import { useNow } from '../reader/useNow'
import { useNarrow } from '../ui/useNarrow'
import { useTitle } from '../ui/useTitle'
import { useActs } from '../undo/acts'
import { AddressNote } from './AddressNote'
import { AgendaView } from './AgendaView'
import { AskBar } from './AskBar'
import { AsNote } from './AsNote'
import type { BrickActs } from './BrickButton'
import { type DeskPlace, deskText, readDesk } from './deskPlace'
import { EmptyWall } from './EmptyWall'
import { KeyList } from './KeyList'
import { lanesOf } from './lanes'
import { keepLastSpan, keepLastView, lastSpan } from './lastView'
import { MarksBar } from './MarksBar'
import { MonthView } from './MonthView'
import { PeriodNav } from './PeriodNav'
import { PrintHead } from './PrintHead'
import { Ribbon } from './Ribbon'
import { RosterView } from './RosterView'
import { carriedTo, rowsOf, rowsOfBrick } from './roster'
import { useAsked } from './useAsked'
import { useCarry } from './useCarry'
import type { Carried, Ghost } from './useHand'
import { useKeys } from './useKeys'
import { useLaid } from './useLaid'
import { copyOf, useMarks } from './useMarks'
import { usePeopleTimes } from './usePeopleTimes'
import { usePeriod } from './usePeriod'
import { useSteady } from './useSteady'
import { ViewTabs } from './ViewTabs'
import type { ViewProps } from './viewProps'
import { WallDesk } from './WallDesk'
import { WeekView } from './WeekView'
import { findQuery, type Search, wallQuery } from './wallQuery'
import { elsewhereText, seenText, whatChanged, whoseText } from './wallWords'

const noLayers: Layer[] = []
const noBricks: Brick[] = []

/** More people than these are not meant by looking at them: nobody looks for a gap of a whole club. */
const mostMeant = 12

const pinKey = 'mortar-pinned-rows'

/** How many weeks the ribbon has, and how many of them lie before today. */
const ribbonWeeks = 26
const ribbonBefore = 5

/** The wall: everything in view laid over time, the ribbon over it, the shelf under it, the desk beside it. */
export function WallPage() {
  const { view } = useParams()
  return isView(view) ? <Wall view={view} /> : <Navigate to="/roster" replace />
}

function Wall({ view }: { view: View }) {
  const { person } = useReader()
  const { preferences, zone } = person
  const acts = useActs()
  const navigate = useNavigate()
  const queries = useQueryClient()
  const now = useNow()
  const today = dateOf(now)
  const [search, setSearch] = useSearchParams()
  const narrow = useNarrow()
  const { date, span, exact, period, beside, firstDay } = usePeriod(view, today, narrow)
  const { days, first, last } = period

  // Through whose eyes a coordinator looks at their calendars; nothing can be changed then.
  const as = search.get('as')
  const shelf = useQuery(as ? shelfAsQuery(as) : shelfQuery)
  const groups = useQuery(groupQueries.list)
  const wall = useQuery(wallQuery(first, last, as))
  const laid = useLaid(wall.data, `${view} ${first} ${last} ${as}`)
  const { layers, address } = useAddressLayers(shelf.data ?? noLayers)
  const group =
    groups.data?.find((one) => one.id === (search.get('group') ?? lastGroup())) ??
    busiest(groups.data ?? [], layers)
  const named = search.get('group')
  const isOutside = groups.isSuccess && named !== null && !groups.data.some((one) => one.id === named)
  const members = useQuery({ ...groupQueries.members(group?.id ?? ''), enabled: group !== undefined })
  useEffect(() => keepLastView(view), [view])

  // The periods beside this one are there before they are asked for, so that nothing is ever blank.
  const fetched = wall.isSuccess && !wall.isPlaceholderData
  useEffect(() => {
    if (!fetched) return
    for (const near of beside) void queries.prefetchQuery(wallQuery(near.first, near.last, as))
  }, [fetched, queries, beside, as])

  const [form, setForm] = useState<EventForm | null>(null)
  const [met, setMet] = useState<EventForm | null>(null)
  const [asked, setAsked] = useState<ReachAsked>(null)
  const [pinned, setPinned] = useState<readonly string[]>(
    () => localStorage.getItem(pinKey)?.split(' ').filter(Boolean) ?? [],
  )
  const [seeking, setSeeking] = useState<Search>(() => ({
    words: '',
    person: '',
    calendar: '',
    kind: '',
    from: addDays(today, -90),
    to: addDays(today, 270),
  }))
  const { write } = useEventActs()
  const sight = useSight(form, layers)
  const desk = readDesk(search.get('desk'))
  const who = useMemo(() => search.get('who')?.split(' ').filter(Boolean) ?? [], [search])

  const people = members.data ?? noPeople
  const others = usePeopleTimes(
    as === null ? people : noPeople,
    person.id,
    first,
    last,
    (id) => view === 'roster' || (view === 'day' && !narrow) || who.includes(id),
  )
  const byId = useMemo(
    () =>
      new Map(
        [...layers.filter((layer) => layer.shown), ...others.layers].map((layer) => [
          layer.calendarId,
          layer,
        ]),
      ),
    [layers, others.layers],
  )
  const table = useQuery({
    ...accessTableQuery(group?.id ?? ''),
    enabled: as !== null && group !== undefined,
  })
  const asName = table.data?.people.find((one) => one.personId === as)?.name ?? 'somebody else'
  const names = useMemo(() => new Map(people.map((one) => [one.personId, one.name])), [people])
  // The hour matters to what stands under names, the minute does not.
  const hour = `${now.slice(0, 13)}:00:00`
  const rows = useMemo(() => {
    const shown = people.filter((one) => who.length === 0 || who.includes(one.personId))
    return rowsOf(
      shown.map((one) => ({
        personId: one.personId,
        name: one.name,
        note:
          one.zone === zone ? (one.coordinates ? 'coordinates' : '') : elsewhereText(one.zone, zone, hour),
      })),
      [...byId.values()],
    )
  }, [people, who, byId, zone, hour])
  const inView = useMemo(() => rows.map((row) => row.personId).filter((id) => id !== null), [rows])
  const rowKeys = useMemo(() => new Set(rows.map((row) => row.key)), [rows])
  const bricks = useMemo(
    () =>
      [...onlySeen(laid?.bricks ?? noBricks, as), ...others.bricks].filter((brick) => {
        const layer = byId.get(brick.calendarId)
        if (!layer) return false
        return (
          who.length === 0 || rowsOfBrick(brick, layer, rowKeys).some((key) => who.includes(key.slice(7)))
        )
      }),
    [laid, others.bricks, as, byId, who, rowKeys],
  )
  const marks = useMarks(bricks)
  const inDay = view === 'day' ? bricks : noBricks
  const lanes = useMemo(
    () => lanesOf(view, narrow, rows, who, inDay, byId),
    [view, narrow, rows, who, inDay, byId],
  )
  const struck = laid?.clashes
  const clashes = useMemo(() => clashesOf(struck ?? []), [struck])
  const isSeeking =
    desk?.kind === 'find' && (seeking.words.trim() !== '' || seeking.person !== '' || seeking.kind !== '')
  const hits = useQuery({ ...findQuery(seeking), enabled: isSeeking })
  const found = useMemo(
    () => (isSeeking && hits.data ? new Set(hits.data.hits.map((hit) => hit.eventId)) : null),
    [isSeeking, hits.data],
  )
  const { gaps, proposed, together, cover, clashing, free, setFree, pointAt } = useAsked({
    view,
    desk,
    isAs: as !== null,
    isLoaded: wall.isSuccess,
    first,
    last,
    now,
    today,
    group,
    inView,
    onShowClashes: () => place({ kind: 'clashes' }),
  })
  const makeIn = layerToMakeIn(layers, group?.id, preferences.eventCalendar)

  /** Reads where one is at that moment: a save that ends later must not lead back to where it began. */
  const place = (next: DeskPlace | null, extra: Record<string, string | null> = {}) => {
    const after = new URLSearchParams(window.location.search)
    if (next) after.set('desk', deskText(next))
    else after.delete('desk')
    for (const [key, value] of Object.entries(extra))
      if (value === null) after.delete(key)
      else after.set(key, value)
    navigate({ pathname: window.location.pathname, search: after.toString() }, { replace: true })
  }
  const titleIn = ({ title, calendarId }: { title: string; calendarId: string }) =>
    titleOf(title, layers.find((layer) => layer.calendarId === calendarId)?.purpose)
  /** Lays something else on the desk, or nothing; what was written and not saved can be brought back. */
  const leaveFor = (next: DeskPlace | null) => {
    const left = desk?.kind === 'writing' && asked === null && sight?.kind === 'writes' ? sight.form : null
    turnTo(next)
    if (left && isWritten(left, bricks))
      acts.offer(`“${titleIn(left)}” was not saved.`, 'Bring it back', () => openForm(left))
  }
  const leaveDesk = () => {
    if (marks.count > 0) marks.clear()
    leaveFor(null)
  }
  const turnTo = (next: DeskPlace | null) => {
    setForm(null)
    setMet(null)
    setAsked(null)
    place(next)
  }
  const closeDesk = () => turnTo(null)
  const goTo = (day: string, to: View = view) => {
    const after = new URLSearchParams(search)
    if (exact > 0 && to === view) after.set('to', addDays(day, exact - 1))
    else after.delete('to')
    navigate({ pathname: `/${to}/${day}`, search: after.toString() })
  }
  const setSpan = (days: number, how: { replace?: boolean } = {}) => {
    keepLastSpan(view, days)
    setSearch((before) => {
      const after = new URLSearchParams(before)
      after.set('days', String(days))
      after.delete('to')
      return after
    }, how)
  }
  // Whoever is sent the address sees as much as who sends it, whatever their device showed last.
  const isSpanKept = search.get('days') === null && exact === 0 && lastSpan(view) > 0
  const nameSpan = useEffectEvent(() => setSpan(span, { replace: true }))
  useEffect(() => {
    if (isSpanKept) nameSpan()
  }, [isSpanKept])
  const showView = (to: View) => {
    const after = new URLSearchParams(search)
    after.delete('days')
    after.delete('to')
    navigate({ pathname: `/${to}/${date}`, search: after.toString() })
  }

  const openForm = (next: EventForm, theirs: EventForm | null = null, asking: ReachAsked = null) => {
    setForm(next)
    setMet(theirs)
    setAsked(asking)
    place({ kind: 'writing' })
  }
  const openBrick = (brick: Brick) => {
    if (as) {
      acts.done(seenText(asName, brick))
      return
    }
    if (brick.form === 'busy') {
      acts.done('Only the times are shared with you here: it is busy then.')
      return
    }
    leaveFor({ kind: 'event', key: eventKey(brick.eventId, brick.only) })
  }
  const make = (time: EventForm['time'], lane: string) => {
    if (as) {
      acts.done(`You look through the eyes of ${asName}: go back to your own wall to change something.`)
      return
    }
    const row = rows.find((one) => one.key === lane)
    const layer = layers.find((one) => one.calendarId === row?.calendarId) ?? makeIn
    if (!layer) {
      acts.done('There is no calendar you can add to. Make one, or ask a coordinator for the step Add.')
      return
    }
    openForm(newForm(layer.calendarId, time, row?.personId ? [row.personId] : []))
  }
  /** Something new for some people, in the calendar that new events go to. */
  const makeFor = (time: EventForm['time'], whom: readonly string[], places: readonly string[] = []) => {
    const sought = placesOf(layers, places)
    const layer = bookableOf(sought) ?? makeIn
    if (!layer) {
      acts.done('There is no calendar you can add to. Make one, or ask a coordinator for the step Add.')
      return
    }
    const start = dateOf(time.form === 'days' ? time.first : time.start)
    openForm({ ...newForm(layer.calendarId, time, whom), place: placeText(sought) })
    if (!days.includes(start)) {
      const after = new URLSearchParams(window.location.search)
      navigate({ pathname: `/${view}/${start}`, search: after.toString() })
    }
  }
  const takeGap = (gap: Gap) => {
    if (as) return
    const asked = desk?.kind === 'gaps' ? gaps.form : null
    makeFor(
      { form: 'clock', start: gap.suggested, end: gap.suggestedEnd, zone },
      gap.named,
      asked?.places ?? [],
    )
  }
  const seekGaps = (whom: readonly string[], places: readonly string[] = []) => {
    setForm(null)
    gaps.begin(whom, places)
    place({ kind: 'gaps' })
  }
  const beginGaps = useEffectEvent(() => gaps.begin(whomMeant()))
  /** For those in view where they are few enough to be meant; else for oneself and whoever is added. */
  const whomMeant = () => (who.length > 0 || inView.length <= mostMeant ? inView : [person.id])
  const seekForView = () => seekGaps(whomMeant())
  // An address that leads to the gaps begins with those in view.
  const isUnasked = desk?.kind === 'gaps' && gaps.form === null && members.isSuccess && !as
  useEffect(() => {
    if (isUnasked) beginGaps()
  }, [isUnasked])

  /** As long as the preferences say a new event is: today from the next half hour on, else in the morning. */
  const placeOn = (day: string, lane: string) => {
    const start = day === today ? nextHalfHour(minuteOf(now)) : Math.max(9 * 60, preferences.dayBegins)
    make(
      {
        form: 'clock',
        start: localAt(day, start),
        end: localAt(day, start + preferences.eventMinutes),
        zone,
      },
      lane,
    )
  }
  const makeFromHand = (time: EventForm['time'], lane: string) => {
    // On a wall without hours a press on a day means an hour of it, and a pull over several means the days.
    if (time.form === 'days' && time.first === time.last && view !== 'week' && view !== 'day')
      placeOn(time.first, lane)
    else make(time, lane)
  }
  const change = async (wish: EventForm, sentence: string, brick: EventBrick) => {
    const written = await write(wish, sentence, 'whole')
    if (written.kind === 'stale') openForm(wish, written.theirs)
    else if (form && brickKey(brick) === brickKey(brickOf(form))) closeDesk()
  }
  const carryTo = ({ brick, time, from, to, copy }: Carried): boolean => {
    const rowOf = (key: string) => rows.find((row) => row.key === key)
    const [source, target] = [rowOf(from), rowOf(to)]
    const attendees = source && target ? carriedTo(brick, source, target) : [...brick.attendees]
    const wish = { ...formOf(brick), time, attendees }
    const isOfMarked = marks.count > 1 && marks.keys.has(brickKey(brick))
    if (copy && isOfMarked) {
      void marks.copyAll(brick, time)
      return false
    }
    if (copy) {
      void write(copyOf(wish), `Copied “${titleIn(brick)}” to ${dayText(daysOf(time).first)}.`, 'whole')
      return true
    }
    if (JSON.stringify([time, attendees]) === JSON.stringify([brick.time, brick.attendees])) return false
    if (isOfMarked) void marks.moveAll(brick, time)
    else if (brick.only) openForm(wish, null, 'change')
    else {
      void change(
        wish,
        `${whatChanged(brick, time, target, source, byId.get(brick.calendarId)?.purpose)}.`,
        brick,
      )
      return true
    }
    return false
  }
  const mark = (brick: Brick) => {
    if (as || brick.form !== 'event') return
    marks.mark(brick)
  }
  const { carry, onBrickKey: onCarryKey } = useCarry(
    (brick, time) => carryTo({ brick, time, from: '', to: '', copy: false }),
    (sentence) => acts.done(sentence),
  )
  const newCalendar = () => {
    setForm(null)
    place({ kind: 'newCalendar' })
  }
  const firstHere = days.includes(today) ? today : view === 'month' ? date : first
  const keys: Record<string, () => void> = {
    '[': () => goTo(period.step(-1)),
    ']': () => goTo(period.step(1)),
    '.': () => goTo(today),
    n: () => placeOn(firstHere, ''),
    z: acts.undo,
    l: () => document.querySelector<HTMLElement>('nav[aria-label="Shelf"] button')?.focus(),
    '/': () => place({ kind: 'find' }),
    f: seekForView,
    w: () => place({ kind: 'free' }),
    k: () => place({ kind: 'clashes' }),
    '?': () => place({ kind: 'keys' }),
    Escape: leaveDesk,
  }
  views.forEach((one, index) => {
    keys[`Alt+${index + 1}`] = () => showView(one.value)
  })
  if (marks.count > 0) keys.Delete = () => void marks.deleteAll()
  useKeys(desk && writesOn.has(desk.kind) ? besideWriting(keys) : keys)

  const carried = carry
    ? { ...carry.brick, time: carry.time }
    : desk?.kind === 'writing' && sight?.kind === 'writes' && sight.form.calendarId
      ? brickOf(sight.form)
      : null
  const chosen = carried ? brickKey(carried) : desk?.kind === 'event' ? desk.key : null
  const laneOfDraft = carried
    ? (rowsOfBrick(carried, byId.get(carried.calendarId) ?? blankLayer, rowKeys)[0] ?? '')
    : ''
  const brickActs = useSteady<BrickActs>({ onOpen: openBrick, onMark: mark, onBrickKey: onCarryKey })
  const carriedIn = carried?.calendarId
  const markedKeys = marks.keys
  const face = useCallback<ViewProps['face']>(
    (brick) => {
      const layer =
        byId.get(brick.calendarId) ??
        (brick.calendarId === carriedIn ? layers.find((one) => one.calendarId === carriedIn) : undefined)
      const key = brickKey(brick)
      return (
        layer && {
          brick,
          layer,
          acts: brickActs,
          state: {
            past: isPast(timeOf(brick, zone), now),
            chosen: key === chosen,
            marked: markedKeys.has(key),
            clash: clashes.get(key),
            whose: view === 'roster' || layer.purpose !== 'away' ? undefined : whoseText(brick, names),
            found: found === null ? undefined : brick.form === 'event' && found.has(brick.eventId),
          },
        }
      )
    },
    [byId, carriedIn, layers, brickActs, zone, now, chosen, markedKeys, clashes, view, names, found],
  )
  const asNew = (ghost: Ghost): EventBrick | null => {
    if (ghost.brick) return { ...ghost.brick, time: ghost.time }
    const row = rows.find((one) => one.key === ghost.lane)
    const layer = layers.find((one) => one.calendarId === row?.calendarId) ?? makeIn
    return layer ? { ...blankBrick(layer.calendarId, 'drawn', ghost.time), title: 'New event' } : null
  }
  const shared: ViewProps = {
    days,
    now,
    bricks,
    layers: byId,
    face,
    carried,
    draftLane: laneOfDraft,
    hand: { onOpen: openBrick, onMark: mark, onMake: makeFromHand, onCarry: carryTo, onPoint: pointAt },
    asNew,
    lit: proposed ?? gaps.lit,
    pointed: desk?.kind === 'free' ? free : null,
    onLit: proposed ? null : takeGap,
    onPlace: placeOn,
    beside: desk && !narrow ? (chosen ?? '') : null,
  }
  const ribbonFrom = addDays(
    weekStart(
      date < addDays(today, -7 * ribbonBefore) || date > addDays(today, 7 * (ribbonWeeks - ribbonBefore - 2))
        ? date
        : today,
      firstDay,
    ),
    -7 * ribbonBefore,
  )
  const low = useLowWeeks(
    as === null && wall.isSuccess && group && group.cover.length > 0 ? group.id : undefined,
    ribbonFrom,
    ribbonWeeks,
  )
  const title = view === 'month' ? monthText(date) : periodText(first, last)
  useTitle(group ? `${title}, ${group.name}` : title)
  return (
    <div className="flex h-full flex-col">
      <TopBar>
        <GroupMenu
          groups={groups.data ?? []}
          open={group}
          onOpen={(groupId) => {
            keepLastGroup(groupId)
            place(null, { group: groupId, who: null })
          }}
          onNewCalendar={newCalendar}
          onNewGroup={() => place({ kind: 'newGroup' })}
          onAsk={() => place({ kind: 'ask' })}
        />
        <PeriodNav
          title={title}
          today={today}
          onMove={(steps) => goTo(period.step(steps))}
          onNow={() => goTo(today)}
          onGo={goTo}
        />
        <ViewTabs view={view} span={exact || span} onView={showView} onSpan={setSpan} />
        <div className="ml-auto flex items-center gap-1.5">
          <button
            type="button"
            title="Find  /"
            onClick={() => place({ kind: 'find' })}
            className="flex items-center rounded-control border border-on-bar/40 px-2.5 py-1 max-sm:px-2"
          >
            <SearchSign size={18} aria-hidden="true" className="sm:hidden" />
            <span className="max-sm:sr-only">Find</span>
          </button>
          <button
            type="button"
            title="New event  N"
            onClick={() => placeOn(firstHere, '')}
            className="rounded-control bg-on-bar px-3 py-1 font-bold text-bar max-sm:px-2.5"
          >
            New<span className="max-2xl:sr-only"> event</span>
          </button>
        </div>
      </TopBar>
      {!as && (
        <Ribbon
          from={ribbonFrom}
          weeks={narrow ? 13 : ribbonWeeks}
          first={first}
          last={last}
          today={today}
          calendars={[...byId.keys()]}
          low={low}
          onGo={goTo}
        >
          <AskBar
            open={desk?.kind}
            clashes={clashing.all?.length}
            onGaps={seekForView}
            onFree={() => place({ kind: 'free' })}
            onClashes={() => place({ kind: 'clashes' })}
          />
        </Ribbon>
      )}
      <PrintHead group={group?.name} title={title} layers={byId.values()} />
      {isOutside && (
        <p role="status" className="border-b border-cement-300 bg-cement-200 px-4 py-1 text-[13px]">
          You are not in the group of this address{group && `, so this is ${group.name}`}. Somebody who
          coordinates it can add you.
        </p>
      )}
      {address && shelf.isSuccess && (
        <AddressNote address={address} shown={layers.filter((layer) => layer.shown).length} />
      )}
      <main className="relative flex min-h-0 flex-1">
        {shelf.isSuccess && layers.length === 0 && !as ? (
          <EmptyWall
            hasGroup={group !== undefined}
            onNewCalendar={newCalendar}
            onNewGroup={() => place({ kind: 'newGroup' })}
          />
        ) : view === 'roster' ? (
          <RosterView
            {...shared}
            rows={rows}
            zone={zone}
            cover={cover}
            names={names}
            together={together}
            pinned={pinned}
            onPin={(key) => {
              const next = pinned.includes(key) ? pinned.filter((one) => one !== key) : [...pinned, key]
              localStorage.setItem(pinKey, next.join(' '))
              setPinned(next)
            }}
          />
        ) : view === 'month' ? (
          <MonthView {...shared} zone={zone} month={date.slice(0, 7)} onDay={(day) => goTo(day, 'day')} />
        ) : view === 'agenda' ? (
          <AgendaView
            {...shared}
            zone={zone}
            names={names}
            onRange={(from, to) => {
              const after = new URLSearchParams(search)
              after.set('to', to)
              navigate({ pathname: `/agenda/${from}`, search: after.toString() })
            }}
          />
        ) : (
          <WeekView {...shared} lanes={lanes} />
        )}
        {marks.count > 0 && (
          <MarksBar
            count={marks.count}
            away={marks.away}
            hasSeries={marks.hasSeries}
            layers={layers}
            onDelete={() => void marks.deleteAll()}
            onPutIn={(layer) => void marks.putIn(layer)}
            onClear={marks.clear}
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
            people={people}
            names={names}
            group={group}
            form={form}
            met={met}
            asked={asked}
            sight={sight}
            search={seeking}
            onSearch={setSeeking}
            onHit={(brick) => {
              goTo(daysOf(brick.time).first)
              setTimeout(() => openBrick(brick))
            }}
            onForm={setForm}
            onMet={setMet}
            onEdit={openForm}
            onPlace={place}
            onGroup={(groupId) => {
              keepLastGroup(groupId)
              place({ kind: 'newCalendar' }, { group: groupId })
            }}
            gaps={gaps}
            onGap={takeGap}
            reader={person.id}
            makeIn={makeIn?.calendarId}
            onSettled={(eventId, day) => {
              if (!days.includes(day)) goTo(day)
              place({ kind: 'event', key: eventKey(eventId, null) })
            }}
            clashes={clashing}
            onTakeOff={(brick, personId) => {
              const wish = { ...formOf(brick), attendees: brick.attendees.filter((one) => one !== personId) }
              if (brick.only) openForm(wish, null, 'change')
              else
                void change(wish, `Took ${names.get(personId) ?? 'somebody'} off “${titleIn(brick)}”.`, brick)
            }}
            free={free}
            onFree={setFree}
            zone={zone}
            today={today}
            onMake={makeFor}
            onGaps={seekGaps}
            onGo={(day) => {
              if (!days.includes(day)) goTo(day)
            }}
            onClose={closeDesk}
            onLeave={leaveDesk}
          />
        )}
      </main>
      {as ? (
        <AsNote name={asName} layers={layers} onBack={() => place(null, { as: null })} />
      ) : (
        <Shelf
          layers={layers}
          address={address}
          groupId={group?.id}
          groupName={group?.name}
          people={people}
          who={who}
          onWho={(next) => place(desk, { who: next.length > 0 ? next.join(' ') : null })}
          onOpen={(calendarId, part) => {
            setForm(null)
            place(part === 'look' ? { kind: 'look', calendarId } : { kind: 'calendar', calendarId, part })
          }}
          onNewCalendar={newCalendar}
          hasDesk={desk !== null}
        />
      )}
    </div>
  )
}

/** The desks on which something is written: a letter typed there is meant for it, also before a field has the focus. */
const writesOn: ReadonlySet<DeskPlace['kind']> = new Set([
  'writing',
  'calendar',
  'newCalendar',
  'newGroup',
  'ask',
  'propose',
])

const besideWriting = (keys: Readonly<Record<string, () => void>>) =>
  Object.fromEntries(Object.entries(keys).filter(([key]) => key === 'Escape' || key.startsWith('Alt+')))

/** Bricks as they are looked at through somebody else's eyes: nothing of it is taken in hand. */
const onlySeen = (bricks: readonly Brick[], as: string | null): readonly Brick[] =>
  as === null
    ? bricks
    : bricks.map((brick) => (brick.form === 'event' ? { ...brick, mayChange: false } : brick))

const noPeople: Schema['GroupsMemberBody'][] = []

const blankLayer = { takes: 'named', person: null, purpose: 'events', beside: false, calendarId: '' } as const

/** Whether a form holds something that the wall does not. */
function isWritten(form: EventForm, bricks: readonly Brick[]): boolean {
  if (form.version === null) return form.title !== '' || form.notes !== '' || form.place !== ''
  const there = bricks.find((brick): brick is EventBrick => brickKey(brick) === brickKey(brickOf(form)))
  return there !== undefined && differences(form, formOf(there)).length > 0
}

type Group = Schema['GroupsGroupBody']

/** The group one has most to do with: the one to begin in. */
const busiest = (groups: readonly Group[], layers: readonly Layer[]): Group | undefined =>
  groups.toSorted((a, b) => layersOf(b, layers) - layersOf(a, layers))[0]

const layersOf = (group: Group, layers: readonly Layer[]): number =>
  layers.filter((layer) => layer.groupId === group.id).length
