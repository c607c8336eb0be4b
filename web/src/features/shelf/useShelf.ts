import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import type { Layer } from '../../model/bricks'
import { layLayer, orderLayers, shelfQuery } from '../../model/shelfQuery'
import type { AddressLayers } from '../../model/useAddressLayers'
import { useActs } from '../../undo/acts'
import { forgetShownBefore, keepShownBefore, shownBefore } from './shownBefore'

const none: Layer[] = []

/**
 * What can be done with the layers of one's own wall; each is shown at once and kept with the account. Where an address
 * decides what is shown, showing and hiding changes the address and leaves what one keeps alone.
 */
export function useShelf(inView: readonly Layer[], address: AddressLayers | null) {
  const layers = useQuery(shelfQuery).data ?? none
  const queries = useQueryClient()
  const acts = useActs()
  const settle = {
    onMutate: async (next: readonly Layer[]): Promise<Layer[]> => {
      await queries.cancelQueries({ queryKey: ['shelf'] })
      const before = queries.getQueryData<Layer[]>(['shelf'])
      queries.setQueryData<Layer[]>(['shelf'], [...next])
      return before ?? []
    },
    onError: (error: unknown, _: readonly Layer[], before: Layer[] | undefined) => {
      queries.setQueryData(['shelf'], before)
      acts.failed(error)
    },
    onSettled: () => queries.invalidateQueries({ queryKey: ['shelf'] }),
  }
  const all = useMutation({ mutationFn: orderLayers, ...settle })
  const one = useMutation({
    mutationFn: (next: readonly Layer[]) => Promise.all(changed(layers, next).map(layLayer)),
    ...settle,
  })

  const withOne = (calendarId: string, part: Partial<Layer>) => {
    if (address && part.shown !== undefined)
      address.show(
        inView
          .filter((layer) => (layer.calendarId === calendarId ? part.shown : layer.shown))
          .map((layer) => layer.calendarId),
      )
    else keepOne(calendarId, part)
  }
  const keepOne = (calendarId: string, part: Partial<Layer>) => {
    const next = layers.map((layer) => (layer.calendarId === calendarId ? { ...layer, ...part } : layer))
    // Once all of it is back by hand, what is hidden after that is hidden on purpose.
    if (shownBefore()?.every((id) => shownOf(next).includes(id))) forgetShownBefore()
    one.mutate(next)
  }
  const takeOff = (layer: Layer) => {
    keepOne(layer.calendarId, { offShelf: true })
    acts.done(`“${layer.name}” is off your shelf. Find it by its name to put it back.`)
  }
  const before = address ? null : shownBefore()
  const isNarrowed = before?.some((id) => layers.some((one) => one.calendarId === id && !one.shown))
  const showBefore = () => {
    const shown = shownBefore() ?? []
    forgetShownBefore()
    all.mutate(layers.map((layer) => ({ ...layer, shown: shown.includes(layer.calendarId) })))
  }
  return {
    /** Takes one off the shelf; the access to it stays. */
    takeOff,
    putBack: (layer: Layer) => keepOne(layer.calendarId, { offShelf: false, shown: true }),
    /** Changes one layer: shown, beside, or one's own look of it. */
    lay: withOne,
    /** Only these are shown; what was before can be brought back. */
    showOnly: (shown: readonly { calendarId: string; beside?: boolean }[]) => {
      if (address) {
        address.show(shown.map((layer) => layer.calendarId))
        return
      }
      keepShownBefore(shownOf(layers))
      const wanted = new Map(shown.map((layer) => [layer.calendarId, layer]))
      all.mutate(
        layers.map((layer) => ({
          ...layer,
          shown: wanted.has(layer.calendarId),
          beside: wanted.get(layer.calendarId)?.beside ?? layer.beside,
        })),
      )
      acts.offer('Showing a part of your layers.', 'Back to what was', () => {
        forgetShownBefore()
        all.mutate(layers)
      })
    },
    /** Shows again what was shown before only a part of it was; undefined where nothing was put away like that. */
    showBefore: isNarrowed ? showBefore : undefined,
    /** Puts a layer where another lies. */
    moveTo: (calendarId: string, before: string) => {
      const moving = layers.find((layer) => layer.calendarId === calendarId)
      if (!moving || calendarId === before) return
      const from = layers.findIndex((layer) => layer.calendarId === calendarId)
      const to = layers.findIndex((layer) => layer.calendarId === before)
      const rest = layers.filter((layer) => layer !== moving)
      const place = rest.findIndex((layer) => layer.calendarId === before) + (from < to ? 1 : 0)
      all.mutate([...rest.slice(0, place), moving, ...rest.slice(place)])
    },
  }
}

const shownOf = (layers: readonly Layer[]) =>
  layers.filter((layer) => layer.shown).map((layer) => layer.calendarId)

const changed = (before: readonly Layer[], next: readonly Layer[]): Layer[] =>
  next.filter((layer, index) => layer !== before[index])
