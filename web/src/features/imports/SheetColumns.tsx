import { useMutation } from '@tanstack/react-query'
import type { Schema } from '../../api/client'
import { sentenceOf } from '../../api/problem'
import type { Layer } from '../../model/bricks'
import { Alert } from '../../ui/Alert'
import { bringFile, type Import, type SheetWish } from './importQueries'

type Role = Schema['ColumnRole']

const roles: readonly { value: Role; label: string }[] = [
  { value: 'nothing', label: 'nothing' },
  { value: 'title', label: 'title' },
  { value: 'startDay', label: 'day it starts' },
  { value: 'startTime', label: 'time it starts' },
  { value: 'endDay', label: 'day it ends' },
  { value: 'endTime', label: 'time it ends' },
  { value: 'length', label: 'how long it lasts' },
  { value: 'zone', label: 'time zone' },
  { value: 'place', label: 'place' },
  { value: 'kind', label: 'kind' },
  { value: 'notes', label: 'notes' },
]

interface SheetColumnsProps {
  layer: Layer
  read: Import
  sheet: Schema['SheetImportBody']
  file: File
  onMended: (read: Import) => void
}

/** What each column of a spreadsheet was taken for, and how the rows are read by that; changed here, all of it is read anew. */
export function SheetColumns({ layer, read, sheet, file, onMended }: SheetColumnsProps) {
  const mend = useMutation({
    mutationFn: (wish: SheetWish) =>
      bringFile(layer.calendarId, read.id, file, () => undefined, new AbortController().signal, wish),
    onSuccess: onMended,
  })
  const now: SheetWish = {
    head: sheet.head,
    columns: sheet.columns.map((one) => one.role),
    dates: sheet.areDatesSure ? sheet.dates : null,
  }
  // One column is taken for one thing: what had it before is nothing then.
  const take = (index: number, role: Role) =>
    mend.mutate({
      ...now,
      columns: now.columns.map((one, at) => (at === index ? role : one === role ? 'nothing' : one)),
    })
  return (
    <section aria-label="How the spreadsheet is read" className="grid gap-2">
      <h3 className="text-base">Columns</h3>
      <p className="text-[12px] text-cement-700">
        {sheet.head > 0
          ? `Row ${sheet.head} names them.`
          : 'No row names them; they are known by what is in them.'}{' '}
        Put right what was taken wrong.
      </p>
      <ul className="grid max-h-72 gap-1 overflow-y-auto">
        {sheet.columns.map((column, index) => (
          <li
            // biome-ignore lint/suspicious/noArrayIndexKey: a column is its place
            key={index}
            className="grid grid-cols-[1fr_8.5rem] items-center gap-2 border-b border-cement-200 pb-1"
          >
            <span className="written min-w-0">
              <b className="block truncate">{column.name || `Column ${index + 1}`}</b>
              <span className="block truncate text-[12px] text-cement-700">
                {column.samples.join(' · ') || 'empty'}
              </span>
            </span>
            <select
              aria-label={`${column.name || `Column ${index + 1}`} is taken for`}
              value={column.role}
              disabled={mend.isPending}
              onChange={(event) => {
                const role = roles.find((one) => one.value === event.target.value)
                if (role) take(index, role.value)
              }}
              className="w-full min-w-0 rounded-control border border-cement-500 bg-surface px-1 py-1"
            >
              {roles.map((one) => (
                <option key={one.value} value={one.value}>
                  {one.label}
                </option>
              ))}
            </select>
          </li>
        ))}
      </ul>
      <label className="flex items-center gap-2">
        <span className="flex-1">
          3/4/2026 is
          {!sheet.areDatesSure && (
            <span className="block text-[12px] text-clash">
              The dates here could be either, or are mixed.
            </span>
          )}
        </span>
        <select
          aria-label="Order of dates"
          value={sheet.dates}
          disabled={mend.isPending}
          onChange={(event) =>
            mend.mutate({ ...now, dates: event.target.value === 'monthFirst' ? 'monthFirst' : 'dayFirst' })
          }
          className="rounded-control border border-cement-500 bg-surface px-1 py-1"
        >
          <option value="dayFirst">3 April</option>
          <option value="monthFirst">March 4</option>
        </select>
      </label>
      <label className="flex items-center gap-2">
        <span className="flex-1">Row that names the columns</span>
        <select
          aria-label="Row that names the columns"
          value={sheet.head}
          disabled={mend.isPending}
          onChange={(event) => mend.mutate({ ...now, head: Number(event.target.value) })}
          className="rounded-control border border-cement-500 bg-surface px-1 py-1"
        >
          {[...new Set([0, 1, 2, 3, 4, 5, sheet.head])]
            .toSorted((a, b) => a - b)
            .map((row) => (
              <option key={row} value={row}>
                {row === 0 ? 'none' : row}
              </option>
            ))}
        </select>
      </label>
      {mend.isError && <Alert>{sentenceOf(mend.error)}</Alert>}
      <h3 className="mt-1 text-[13px]">
        Rows, as they are read{' '}
        {sheet.rowsInAll > sheet.rows.length &&
          `(the first ${sheet.rows.length} of ${sheet.rowsInAll.toLocaleString('en-GB')})`}
      </h3>
      <ol
        aria-busy={mend.isPending}
        className="max-h-52 overflow-y-auto border border-cement-300 bg-surface text-[12px]"
      >
        {sheet.rows.map((row) => (
          <li
            key={row.number}
            data-out={row.leftOut}
            className="written border-b border-cement-200 px-2 py-1 last:border-b-0 data-[out=true]:text-clash"
          >
            {row.number}. {row.sentence}
          </li>
        ))}
      </ol>
    </section>
  )
}
