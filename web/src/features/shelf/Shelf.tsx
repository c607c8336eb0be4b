import { useMutation, useQueryClient } from '@tanstack/react-query'
import { EllipsisVertical } from 'lucide-react'
import { Fragment } from 'react'
import { useActs } from '../../app/acts'
import { MarkBlock } from '../../ui/MarkSign'
import { Menu, MenuItem, MenuLabel, MenuLine } from '../../ui/Menu'
import { roleName } from '../access/ladder'
import type { Layer } from '../wall/bricks'
import { showLayer } from './shelfQuery'

interface ShelfProps {
  layers: readonly Layer[]
  groupId: string | undefined
  onOpen: (calendarId: string, part: 'about' | 'access' | 'import') => void
  onNewCalendar: () => void
}

/** The strip under the wall that holds one's layers: press one to show or hide it. */
export function Shelf({ layers, groupId, onOpen, onNewCalendar }: ShelfProps) {
  const queries = useQueryClient()
  const acts = useActs()
  const show = useMutation({
    mutationFn: async (wishes: { calendarId: string; shown: boolean }[]) => {
      for (const wish of wishes) await showLayer(wish.calendarId, wish.shown)
    },
    onMutate: (wishes) => {
      const shown = new Map(wishes.map((wish) => [wish.calendarId, wish.shown]))
      queries.setQueryData<Layer[]>(['shelf'], (all) =>
        all?.map((one) => ({ ...one, shown: shown.get(one.calendarId) ?? one.shown })),
      )
    },
    onError: acts.failed,
    onSettled: () => queries.invalidateQueries({ queryKey: ['shelf'] }),
  })
  const onlyThis = (layer: Layer) =>
    show.mutate(
      layers
        .filter((one) => one.shown !== (one === layer))
        .map((one) => ({ calendarId: one.calendarId, shown: one === layer })),
    )

  const here = layers.filter((layer) => layer.groupId === groupId)
  const elsewhere = Map.groupBy(
    layers.filter((layer) => layer.groupId !== groupId),
    (layer) => layer.groupName,
  )
  const chip = (layer: Layer) => (
    <LayerChip
      key={layer.calendarId}
      layer={layer}
      onShow={(shown) => show.mutate([{ calendarId: layer.calendarId, shown }])}
      onOnly={() => onlyThis(layer)}
      onOpen={onOpen}
    />
  )
  return (
    <nav
      aria-label="Shelf"
      className="flex items-center gap-2 overflow-x-auto border-t border-cement-300 bg-cement-200 px-4 py-2 max-sm:px-2"
    >
      {here.map(chip)}
      {[...elsewhere].map(([name, those]) => (
        <Fragment key={name}>
          <span className="written ml-2 shrink-0 text-[12px] text-cement-700">{name}</span>
          {those.map(chip)}
        </Fragment>
      ))}
      {groupId && (
        <button
          type="button"
          onClick={onNewCalendar}
          className="ml-auto shrink-0 rounded-control px-2 py-1.5 hover:bg-cement-300"
        >
          + Layer
        </button>
      )}
    </nav>
  )
}

interface LayerChipProps {
  layer: Layer
  onShow: (shown: boolean) => void
  onOnly: () => void
  onOpen: (calendarId: string, part: 'about' | 'access' | 'import') => void
}

function LayerChip({ layer, onShow, onOnly, onOpen }: LayerChipProps) {
  return (
    <span
      data-layer={layer.name}
      data-hue={layer.hue}
      data-shown={layer.shown}
      className="layer-chip flex h-8 shrink-0 items-stretch border"
    >
      <button
        type="button"
        aria-pressed={layer.shown}
        title={layer.shown ? 'Hide this layer' : 'Show this layer'}
        onClick={() => onShow(!layer.shown)}
        className="flex items-stretch"
      >
        <MarkBlock mark={layer.mark} size={28} />
        <span className="written flex max-w-44 items-center truncate px-2 font-bold">
          {layer.name}
          {layer.role === 'times' && <span className="ml-1.5 text-[11px] font-normal">times only</span>}
        </span>
      </button>
      <Menu
        side="top"
        trigger={
          <button type="button" aria-label={`More for ${layer.name}`} className="px-0.5">
            <EllipsisVertical size={15} aria-hidden="true" />
          </button>
        }
      >
        <MenuLabel>
          {layer.name}: {roleName(layer.role)}
        </MenuLabel>
        <MenuItem onSelect={onOnly}>Only this one</MenuItem>
        <MenuItem onSelect={() => onOpen(layer.calendarId, 'about')}>Open its page</MenuItem>
        {layer.role === 'coordinate' && (
          <>
            <MenuLine />
            <MenuItem onSelect={() => onOpen(layer.calendarId, 'access')}>Give access</MenuItem>
            <MenuItem onSelect={() => onOpen(layer.calendarId, 'import')}>Import a file</MenuItem>
          </>
        )}
      </Menu>
    </span>
  )
}
