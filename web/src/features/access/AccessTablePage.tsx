import { useQuery } from '@tanstack/react-query'
import { type MouseEvent, useState } from 'react'
import { Link, useParams } from 'react-router'
import { sentenceOf } from '../../api/problem'
import { BarTitle } from '../../frame/BarTitle'
import { TopBar } from '../../frame/TopBar'
import { accessTableQuery } from '../../model/accessQueries'
import { roleName } from '../../model/ladder'
import { longDayText } from '../../reader/dates'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { MarkBlock } from '../../ui/MarkSign'
import { TextField } from '../../ui/TextField'
import {
  asSpreadsheet,
  type Cell,
  linkName,
  meaningOf,
  type Narrowing,
  narrowed,
  narrowings,
  type Place,
  placeKey,
  type RowKind,
  type Table,
} from './accessTable'
import { CellDesk, type Chosen } from './CellDesk'
import { DefaultStep } from './DefaultStep'

/** Who can see and change what in a group: people and groups down, calendars across, a step in every cell. */
export function AccessTablePage() {
  const { groupId = '' } = useParams()
  const table = useQuery(accessTableQuery(groupId))
  return (
    <div className="flex h-full flex-col">
      <TopBar>
        <BarTitle text={`Access${table.data ? `: ${table.data.groupName}` : ''}`} />
      </TopBar>
      {table.isError && (
        <main className="p-8">
          <p role="alert">{sentenceOf(table.error)}</p>
          <Link to="/" className="underline underline-offset-2">
            Back to the wall
          </Link>
        </main>
      )}
      {table.data && <Whole table={table.data} />}
    </div>
  )
}

interface Row {
  id: string
  name: string
  note: string
  kind: RowKind
  cells: readonly Cell[]
}

function Whole({ table }: { table: Table }) {
  const [words, setWords] = useState('')
  const [narrowing, setNarrowing] = useState<Narrowing>('all')
  const [places, setPlaces] = useState<readonly Place[]>([])
  const people = narrowed(table.people, narrowing, words)
  const rows: Row[] = [
    ...(narrowing === 'all' && words === '' ? table.groups : []).map((one) => ({
      id: one.groupId,
      name: one.name,
      note: `group of ${one.members}`,
      kind: 'group' as const,
      cells: one.cells,
    })),
    ...(narrowing === 'all' && words === '' ? table.links : []).map((one) => ({
      id: one.linkId,
      name: linkName(one.name),
      note: `on ${one.holders} ${one.holders === 1 ? 'wall' : 'walls'}`,
      kind: 'link' as const,
      cells: one.cells,
    })),
    ...people.map((one) => ({
      id: one.personId,
      name: one.name,
      note: [
        one.isMember ? '' : one.hasLeft ? 'left the group' : 'from outside',
        one.eventsAlone > 0
          ? `${one.eventsAlone} ${one.eventsAlone === 1 ? 'event' : 'events'} given alone`
          : '',
        one.hasAccount ? (one.wasHere ? '' : 'never here') : 'without an account',
      ]
        .filter(Boolean)
        .join(', '),
      kind: 'person' as const,
      cells: one.cells,
    })),
  ]
  const choose = (place: Place, event: MouseEvent) => {
    const more = event.shiftKey || event.ctrlKey || event.metaKey
    const isIn = places.some((one) => placeKey(one) === placeKey(place))
    if (more) setPlaces(isIn ? places.filter((one) => placeKey(one) !== placeKey(place)) : [...places, place])
    else setPlaces(isIn && places.length === 1 ? [] : [place])
  }
  const chosen = places.flatMap((place): Chosen[] => {
    const row = rows.find((one) => one.id === place.rowId)
    const calendar = table.calendars.find((one) => one.calendarId === place.calendarId)
    return row && calendar
      ? [
          {
            place,
            rowName: row.name,
            calendarName: calendar.name,
            cell: row.cells.find((one) => one.calendarId === place.calendarId),
          },
        ]
      : []
  })
  return (
    <main className="flex min-h-0 flex-1">
      <div className="flex min-w-0 flex-1 flex-col">
        <div className="flex flex-wrap items-end gap-3 border-b border-cement-300 bg-cement-100 px-4 py-3">
          <div className="w-56">
            <TextField label="Name or address" value={words} onChange={setWords} />
          </div>
          <div className="w-56">
            <Choice label="Show" value={narrowing} onChange={setNarrowing} options={narrowings} />
          </div>
          <p className="min-w-40 flex-1 pb-1 text-[12px] leading-tight text-cement-700">
            {people.length} of {table.people.length} people. With Ctrl or Shift several cells are chosen.
          </p>
          <div>
            <Button onClick={() => save(table)}>Save for a spreadsheet</Button>
          </div>
        </div>
        <div className="min-h-0 flex-1 scroll-pt-12 scroll-pl-48 overflow-auto">
          <table className="border-separate border-spacing-0 text-[13px]">
            <thead>
              <tr>
                <th className="sticky top-0 left-0 z-3 w-48 border-r border-b-2 border-cement-300 bg-cement-50 px-4 py-2 text-left">
                  Who
                </th>
                {table.calendars.map((one) => (
                  <th
                    key={one.calendarId}
                    scope="col"
                    data-hue={one.hue}
                    className="sticky top-0 z-2 w-36 min-w-36 border-r border-b-2 border-cement-300 bg-cement-50 p-1.5 text-left font-bold"
                  >
                    <span className="flex items-stretch gap-1.5 text-layer-text">
                      <MarkBlock mark={one.mark} size={20} />
                      <span className="written">{one.name}</span>
                    </span>
                  </th>
                ))}
              </tr>
              <tr>
                <th
                  scope="row"
                  className="sticky left-0 z-1 border-r border-b border-cement-300 bg-cement-100 px-4 py-1.5 text-left"
                >
                  Every member
                </th>
                {table.calendars.map((one) => (
                  <td
                    key={one.calendarId}
                    className="border-r border-b border-cement-300 bg-cement-100 px-1.5 py-1"
                  >
                    <DefaultStep calendar={one} groupName={table.groupName} />
                  </td>
                ))}
              </tr>
            </thead>
            <tbody>
              {rows.map((row) => (
                <tr key={row.id}>
                  <th
                    scope="row"
                    className="sticky left-0 z-1 border-r border-b border-cement-200 bg-cement-50 px-4 py-1 text-left font-bold"
                  >
                    <span className="written">{row.name}</span>
                    {row.note && (
                      <span className="block text-[11px] font-normal text-cement-700">{row.note}</span>
                    )}
                  </th>
                  {table.calendars.map((calendar) => {
                    const place = { rowId: row.id, kind: row.kind, calendarId: calendar.calendarId }
                    const cell = row.cells.find((one) => one.calendarId === calendar.calendarId)
                    return (
                      <td
                        key={calendar.calendarId}
                        data-hue={calendar.hue}
                        className="border-r border-b border-cement-200 bg-surface p-0.5"
                      >
                        {row.kind === 'link' && !cell ? null : (
                          <button
                            type="button"
                            data-step={cell?.role ?? 'none'}
                            data-own={cell?.ways[0]?.way === 'own'}
                            aria-pressed={places.some((one) => placeKey(one) === placeKey(place))}
                            title={cell ? meaningOf(row.kind, cell) : 'No access'}
                            onClick={(event) => choose(place, event)}
                            className="access-cell flex min-h-9 w-full flex-wrap items-baseline gap-x-2 rounded-brick px-2 py-2 text-left"
                          >
                            {cell ? roleName(cell.role) : <span className="text-cement-600">none</span>}
                            {cell && (
                              <span className="written text-[11px] font-normal">{shortWay(cell)}</span>
                            )}
                            <span className="aloud">
                              {' '}
                              for {row.name} on {calendar.name}
                            </span>
                          </button>
                        )}
                      </td>
                    )
                  })}
                </tr>
              ))}
            </tbody>
          </table>
          {rows.length === 0 && (
            <p className="p-6 text-cement-700">Nobody here. Show everybody, or look for another name.</p>
          )}
        </div>
      </div>
      {chosen.length > 0 && (
        <CellDesk
          key={places.map(placeKey).join(' ')}
          chosen={chosen}
          table={table}
          onClose={() => setPlaces([])}
        />
      )}
    </main>
  )
}

/** By which way the step came, in a word or two. */
function shortWay({ ways }: Cell): string {
  const first = ways[0]
  if (!first) return ''
  const by = {
    own: '',
    group: first.group ?? 'a group',
    default: 'every member',
    link: 'link',
    guardian: 'guardian',
  }[first.way]
  return [by, first.lastDay ? `until ${longDayText(first.lastDay)}` : ''].filter(Boolean).join(', ')
}

/** Hands the table over as a file. */
function save(table: Table) {
  const address = URL.createObjectURL(new Blob([asSpreadsheet(table)], { type: 'text/csv' }))
  const link = document.createElement('a')
  link.href = address
  link.download = `Access ${table.groupName}.csv`
  link.click()
  URL.revokeObjectURL(address)
}
