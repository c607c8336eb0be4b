import { isView, type View } from '../../model/views'

const key = 'mortar-view'
const spanKey = (view: View) => `mortar-span-${view}`

/** The view this device showed last; the roster at first, which is where a coordinator is at home. */
export function lastView(): View {
  const last = localStorage.getItem(key) ?? undefined
  return isView(last) ? last : 'roster'
}

/** Whether this device has shown the wall before. */
export const isViewKept = (): boolean => localStorage.getItem(key) !== null

export const keepLastView = (view: View) => localStorage.setItem(key, view)

/** How many days a view showed last on this device. */
export const lastSpan = (view: View): number => Number(localStorage.getItem(spanKey(view)) ?? 0)

export const keepLastSpan = (view: View, span: number) => localStorage.setItem(spanKey(view), String(span))
