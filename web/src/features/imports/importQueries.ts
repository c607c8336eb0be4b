import { api, changeHeaders, type Schema, unwrap } from '../../api/client'
import { ProblemError } from '../../api/problem'

export type Import = Schema['ImportsBody']

/** How a spreadsheet is to be read, where that was mended; what is not said is guessed. */
export interface SheetWish {
  head: number
  columns: readonly Schema['ColumnRole'][]
  dates: Schema['DateOrder'] | null
}

/** Brings a file; told how much of it has arrived (0 to 1). Nothing is written yet. */
export function bringFile(
  calendarId: string,
  importId: string,
  file: File,
  onPart: (part: number) => void,
  signal: AbortSignal,
  wish?: SheetWish,
): Promise<Import> {
  // fetch cannot tell how far an upload is.
  return new Promise((resolve, reject) => {
    const request = new XMLHttpRequest()
    request.open('PUT', `/api/calendars/${calendarId}/imports/${importId}${wish ? `?${said(wish)}` : ''}`)
    request.responseType = 'json'
    request.setRequestHeader('Content-Type', typeOf(file))
    for (const [name, value] of Object.entries(changeHeaders(importId))) request.setRequestHeader(name, value)
    request.upload.onprogress = (event) => onPart(event.total > 0 ? event.loaded / event.total : 0)
    request.onload = () =>
      request.status === 200 && isImport(request.response)
        ? resolve(request.response)
        : reject(ProblemError.from(request.response, request.status))
    request.onerror = () => reject(new TypeError('The connection was lost.'))
    request.onabort = () => reject(new DOMException('Stopped.', 'AbortError'))
    signal.addEventListener('abort', () => request.abort())
    request.send(file)
  })
}

const said = ({ head, columns, dates }: SheetWish) =>
  new URLSearchParams({ head: String(head), columns: columns.join(','), ...(dates ? { dates } : {}) })

/** By its name: what a browser says of a file differs from machine to machine. */
const typeOf = ({ name }: File): string =>
  /\.(csv|tsv|txt)$/i.test(name)
    ? 'text/csv'
    : /\.xlsx$/i.test(name)
      ? 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet'
      : 'text/calendar'

const path = (calendarId: string, importId: string) => ({ params: { path: { calendarId, importId } } })

export const readImport = (calendarId: string, importId: string) =>
  unwrap(api.GET('/api/calendars/{calendarId}/imports/{importId}', path(calendarId, importId)))

export const orderImport = (
  calendarId: string,
  importId: string,
  known: Schema['KnownEvents'],
  set: string,
) =>
  unwrap(
    api.POST('/api/calendars/{calendarId}/imports/{importId}/write', {
      ...path(calendarId, importId),
      headers: { 'X-Change-Set': set },
      body: { known },
    }),
  )

export const stopImport = (calendarId: string, importId: string) =>
  unwrap(api.DELETE('/api/calendars/{calendarId}/imports/{importId}', path(calendarId, importId)))

const isImport = (value: unknown): value is Import =>
  typeof value === 'object' && value !== null && 'findings' in value
