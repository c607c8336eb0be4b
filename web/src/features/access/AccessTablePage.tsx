import { useQuery } from '@tanstack/react-query'
import { type MouseEvent, useState } from 'react'
import { useParams } from 'react-router'
import { sentenceOf } from '../../api/problem'
import { BarTitle } from '../../frame/BarTitle'
import { TopBar } from '../../frame/TopBar'
import { accessTableQuery } from '../../model/accessQueries'
import { Choice } from '../../ui/Choice'
import { TextField } from '../../ui/TextField'
import { TextLink } from '../../ui/TextLink'
import { AccessGrid, rowsOf } from './AccessGrid'
import { type Narrowing, narrowed, narrowings, type Place, placeKey, type Table } from './accessTable'
import { CellDesk, type Chosen } from './CellDesk'
import { LeftCalendars } from './LeftCalendars'

/** Who can see and change what in a group: people and groups down, calendars across, a step in every cell. */
export function AccessTablePage() {
  const { groupId = '' } = useParams()
  const table = useQuery(accessTableQuery(groupId))
  return (
    <div className="page">
      <TopBar>
        <BarTitle text={`Access${table.data ? `: ${table.data.groupName}` : ''}`} />
      </TopBar>
      {table.isError && (
        <main className="p-8">
          <p role="alert">{sentenceOf(table.error)}</p>
          <TextLink to="/">Back to the wall</TextLink>
        </main>
      )}
      {table.data && <Whole table={table.data} groupId={groupId} />}
    </div>
  )
}

function Whole({ table, groupId }: { table: Table; groupId: string }) {
  const [words, setWords] = useState('')
  const [narrowing, setNarrowing] = useState<Narrowing>('all')
  const [places, setPlaces] = useState<readonly Place[]>([])
  const people = narrowed(table.people, narrowing, words)
  const rows = rowsOf(table, people, narrowing === 'all' && words === '', groupId)
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
    <main className="flex min-h-0 flex-1" data-fills="true">
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
          <div className="flex gap-3 pb-1">
            <TextLink to={`/print?what=access&group=${groupId}`}>Print</TextLink>
            <TextLink to={`/spreadsheet?what=access&group=${groupId}`}>As a spreadsheet</TextLink>
          </div>
        </div>
        {table.left.length > 0 && <LeftCalendars left={table.left} />}
        <div className="min-h-0 flex-1 scroll-pt-12 scroll-pl-48 overflow-auto">
          <AccessGrid table={table} rows={rows} places={places} onChoose={choose} />
          {rows.length === 0 && table.calendars.length > 0 && (
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
