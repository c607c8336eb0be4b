import type { Schema } from '../../api/client'
import { reaches, roleName } from '../../model/ladder'
import { longDayText } from '../../reader/dates'

export type Table = Schema['AccessTableBody']
export type TablePerson = Schema['AccessTablePersonBody']

export type Cell = Schema['AccessTableCellBody']
type WayBody = Schema['AccessTableWayBody']

/** What a row stands for. */
export type RowKind = 'person' | 'group' | 'link' | 'noticeboard'

/** A row and a column of the table. */
export interface Place {
  /** The id of what it stands for. */
  rowId: string
  kind: RowKind
  calendarId: string
}

export const placeKey = ({ rowId, calendarId }: Place): string => `${rowId}/${calendarId}`

/** What the table can be narrowed to. */
export type Narrowing = 'all' | 'change' | 'outside' | 'unseen' | 'left'

export const narrowings: readonly { value: Narrowing; label: string }[] = [
  { value: 'all', label: 'Everybody' },
  { value: 'change', label: 'Can change things' },
  { value: 'outside', label: 'From outside the group' },
  { value: 'unseen', label: 'Not seen for 90 days' },
  { value: 'left', label: 'Left the group, still has access' },
]

/** The people of a table that are looked for, by name or address and by what is worth a look. */
export function narrowed(
  people: readonly TablePerson[],
  to: Narrowing,
  words: string,
): readonly TablePerson[] {
  const looked = words.trim().toLowerCase()
  return people.filter(
    (one) =>
      `${one.name} ${one.address ?? ''}`.toLowerCase().includes(looked) &&
      (to === 'all' ||
        (to === 'change' && one.cells.some((cell) => reaches(cell.role, 'add'))) ||
        (to === 'outside' && !one.isMember) ||
        (to === 'left' && one.hasLeft && !one.isMember && one.cells.length > 0) ||
        (to === 'unseen' && one.cells.length > 0 && one.isUnseen)),
  )
}

/** "Edit: given to them, until Fri 27 March. View: as every member." */
export const waysText = (cell: Cell): string =>
  cell.ways.map((way) => `${roleName(way.role)}: ${wayText(way)}`).join('. ')

/** What a cell says of its row: a link is no person to whom something was given. */
export const meaningOf = (kind: RowKind, cell: Cell): string =>
  kind === 'link'
    ? cell.ways
        .map(
          ({ role, lastDay }) =>
            `${roleName(role)} for whoever puts it on their wall${lastDay ? `, until ${longDayText(lastDay)}` : ''}`,
        )
        .join('. ')
    : waysText(cell)

function wayText({ way, group, lastDay }: WayBody): string {
  const by = {
    own: 'given to them',
    group: `by ${group ?? 'a group'}`,
    default: 'as every member',
    link: 'by a link',
    guardian: 'as a guardian',
  }
  return lastDay ? `${by[way]}, until ${longDayText(lastDay)}` : by[way]
}

/** The step that was given to the row itself, whatever it has by other ways. */
export const ownWay = (cell: Cell | undefined): WayBody | undefined =>
  cell?.ways.find((one) => one.way === 'own')

/** A link as it is spoken of. */
export const linkName = (name: string): string => (name ? `Link “${name}”` : 'Link without a name')
