import { useState } from 'react'
import { lazyNamed } from '../ui/lazyNamed'
import { useFace } from './bricks/useFace'
import { EmptyWall } from './EmptyWall'
import { RosterView } from './roster/RosterView'
import { rowsOfBrick } from './roster/roster'
import { chosenOn, type Wall } from './useWall'
import type { ViewProps } from './viewProps'
import { WeekView } from './week/WeekView'

const loadMonth = () => import('./month/MonthView')
const PhoneMonth = lazyNamed(() => import('./month/PhoneMonth'), 'PhoneMonth')
const loadAgenda = () => import('./agenda/AgendaView')
const MonthView = lazyNamed(loadMonth, 'MonthView')
const AgendaView = lazyNamed(loadAgenda, 'AgendaView')
// Most begin with the roster or a week; the others are there before somebody turns to them.
if (typeof requestIdleCallback === 'function')
  requestIdleCallback(() => {
    void loadMonth()
    void loadAgenda()
  })

const pinKey = 'mortar-pinned-rows'

/** The view that is open, with what lies on it and what can be done with it. */
export function WallView({ wall }: { wall: Wall }) {
  const { at, read, zone, names, draft } = wall
  const [pinned, setPinned] = useState<readonly string[]>(
    () => localStorage.getItem(pinKey)?.split(' ').filter(Boolean) ?? [],
  )
  const shared = useViewProps(wall)
  if (wall.isShelfRead && wall.layers.length === 0 && !at.as)
    return (
      <EmptyWall
        hasGroup={wall.group !== undefined}
        onNewCalendar={() => draft.put({ kind: 'newCalendar' })}
        onNewGroup={() => at.place({ kind: 'newGroup' })}
      />
    )
  switch (at.view) {
    case 'roster':
      return (
        <RosterView
          {...shared}
          rows={read.rows}
          zone={zone}
          cover={wall.asked.cover}
          names={names}
          together={wall.asked.together}
          narrow={at.narrow}
          date={at.date}
          pinned={pinned}
          onPin={(key) => {
            const next = pinned.includes(key) ? pinned.filter((one) => one !== key) : [...pinned, key]
            localStorage.setItem(pinKey, next.join(' '))
            setPinned(next)
          }}
        />
      )
    case 'month':
      if (at.narrow)
        return (
          <PhoneMonth
            {...shared}
            zone={zone}
            month={at.date.slice(0, 7)}
            chosen={at.date}
            names={names}
            onChoose={at.turnTo}
          />
        )
      return (
        <MonthView {...shared} zone={zone} month={at.date.slice(0, 7)} onDay={(day) => at.goTo(day, 'day')} />
      )
    case 'agenda':
      return <AgendaView {...shared} zone={zone} names={names} onRange={at.showRange} />
    default:
      return <WeekView {...shared} lanes={read.lanes} narrow={at.narrow} date={at.date} />
  }
}

const blankLayer = { takes: 'named', person: null, purpose: 'events', beside: false, calendarId: '' } as const

/** What every view is given. */
function useViewProps(wall: Wall): ViewProps {
  const { at, read, asked, making, moving, carried } = wall
  const { gaps, proposed } = asked
  const face = useFace(wall)
  return {
    days: at.period.days,
    now: wall.now,
    bricks: read.bricks,
    layers: read.byId,
    face,
    carried,
    draftLane: carried
      ? moving.carry?.to ||
        (rowsOfBrick(carried, read.byId.get(carried.calendarId) ?? blankLayer, read.rowKeys)[0] ?? '')
      : '',
    hand: {
      onOpen: moving.open,
      onMark: moving.mark,
      onMake: making.makeFromHand,
      onCarry: moving.carryTo,
      onPoint: asked.pointAt,
    },
    asNew: making.asNew,
    lit: proposed ?? gaps.lit,
    pointed: at.desk?.kind === 'free' ? asked.free : null,
    onLit: proposed
      ? null
      : (gap) => making.takeGap(gap, at.desk?.kind === 'gaps' ? (gaps.form?.places ?? []) : []),
    onPlace: making.placeOn,
    beside: at.desk && !at.narrow ? (chosenOn(wall) ?? '') : null,
  }
}
