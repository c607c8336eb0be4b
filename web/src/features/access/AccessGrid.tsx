import type { MouseEvent } from 'react'
import { roleName } from '../../model/ladder'
import { longDayText } from '../../reader/dates'
import { MarkBlock } from '../../ui/MarkSign'
import { TextLink } from '../../ui/TextLink'
import { type Cell, linkName, meaningOf, type Place, placeKey, type RowKind, type Table } from './accessTable'
import { DefaultStep } from './DefaultStep'

/** Somebody or something that can have a step on each calendar. */
export interface Row {
  id: string
  name: string
  note: string
  kind: RowKind
  cells: readonly Cell[]
  /** Where its steps are changed, where that is not here. */
  to?: string
}

/** The rows of the table: groups, links and noticeboards where all of it is shown, and those people who are. */
export function rowsOf(
  table: Table,
  people: readonly Table['people'][number][],
  isWhole: boolean,
  groupId: string,
): Row[] {
  return [
    ...(isWhole ? table.groups : []).map((one) => ({
      id: one.groupId,
      name: one.name,
      note: `group of ${one.members}`,
      kind: 'group' as const,
      cells: one.cells,
    })),
    ...(isWhole ? table.links : []).map((one) => ({
      id: one.linkId,
      name: linkName(one.name),
      note: `on ${one.holders} ${one.holders === 1 ? 'wall' : 'walls'}`,
      kind: 'link' as const,
      cells: one.cells,
    })),
    ...(isWhole ? table.noticeboards : []).map((one) => ({
      id: one.noticeboardId,
      name: `Noticeboard “${one.title}”`,
      note: 'the world',
      kind: 'noticeboard' as const,
      cells: one.cells,
      to: `/groups/${groupId}/noticeboards/${one.noticeboardId}`,
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
}

interface AccessGridProps {
  table: Table
  rows: readonly Row[]
  /** The cells that are chosen. */
  places: readonly Place[]
  onChoose: (place: Place, event: MouseEvent) => void
}

/** People and groups down, calendars across, a step in every cell. */
export function AccessGrid({ table, rows, places, onChoose }: AccessGridProps) {
  return (
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
              {row.to ? (
                <TextLink to={row.to}>
                  <span className="written">{row.name}</span>
                </TextLink>
              ) : (
                <span className="written">{row.name}</span>
              )}
              {row.note && <span className="block text-[11px] font-normal text-cement-700">{row.note}</span>}
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
                  {row.to ? (
                    cell && (
                      <p data-step={cell.role} className="access-cell min-h-9 rounded-brick px-2 py-2">
                        {roleName(cell.role)}
                      </p>
                    )
                  ) : row.kind === 'link' && !cell ? null : (
                    <button
                      type="button"
                      data-step={cell?.role ?? 'none'}
                      data-own={cell?.ways[0]?.way === 'own'}
                      aria-pressed={places.some((one) => placeKey(one) === placeKey(place))}
                      title={cell ? meaningOf(row.kind, cell) : 'No access'}
                      onClick={(event) => onChoose(place, event)}
                      className="access-cell flex min-h-9 w-full flex-wrap items-baseline gap-x-2 rounded-brick px-2 py-2 text-left"
                    >
                      {cell ? roleName(cell.role) : <span className="text-cement-600">none</span>}
                      {cell && <span className="written text-[11px] font-normal">{shortWay(cell)}</span>}
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
