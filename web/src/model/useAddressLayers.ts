import { useMemo } from 'react'
import { useSearchParams } from 'react-router'
import type { Layer } from './bricks'

/** The layers that a view's address names (?layers=…), shown instead of one's own choice, which stays as it is. */
export interface AddressLayers {
  /** How many calendars of the address are not on one's wall. */
  missing: readonly string[]
  /** Shows others; null for one's own choice again. */
  show: (calendarIds: readonly string[] | null) => void
}

/** One's layers as they are in view: as the address says where it names some, or as one keeps them. */
export function useAddressLayers(kept: readonly Layer[]): {
  layers: readonly Layer[]
  address: AddressLayers | null
} {
  const [search, setSearch] = useSearchParams()
  const named = search.get('layers')
  return useMemo(() => {
    if (named === null) return { layers: kept, address: null }
    const ids = new Set(named.split(',').filter(Boolean))
    const known = new Set(kept.map((layer) => layer.calendarId))
    return {
      layers: kept.map((layer) => ({ ...layer, shown: ids.has(layer.calendarId) })),
      address: {
        missing: [...ids].filter((id) => !known.has(id)),
        show: (calendarIds) =>
          setSearch(
            (before) => {
              const after = new URLSearchParams(before)
              if (calendarIds === null) after.delete('layers')
              else after.set('layers', calendarIds.join(','))
              return after
            },
            { replace: true },
          ),
      },
    }
  }, [kept, named, setSearch])
}

/** The address of what is in view, layers and all, to keep or to send. */
export function viewAddress(here: string, layers: readonly Layer[]): string {
  const address = new URL(here)
  address.searchParams.delete('desk')
  address.searchParams.set(
    'layers',
    layers
      .filter((layer) => layer.shown)
      .map((layer) => layer.calendarId)
      .join(','),
  )
  return address.toString()
}
