import { useQuery } from '@tanstack/react-query'
import { ChevronUp, Columns2, EllipsisVertical } from 'lucide-react'
import { useState } from 'react'
import type { Layer } from '../../model/bricks'
import { canHaveMore, roleName } from '../../model/ladder'
import { setsQuery } from '../../model/shelfQuery'
import type { AddressLayers } from '../../model/useAddressLayers'
import { momentText } from '../../reader/dates'
import { MarkBlock } from '../../ui/MarkSign'
import { Menu, MenuItem, MenuLabel, MenuLine } from '../../ui/Menu'
import { SetsMenu } from './SetsMenu'
import { useShelf } from './useShelf'

interface ShelfProps {
  layers: readonly Layer[]
  /** Where an address decides what is shown. */
  address: AddressLayers | null
  groupId: string | undefined
  groupName: string | undefined
  /** The people of the open group; pressed ones are the only ones whose time is shown. */
  people: readonly { personId: string; name: string }[]
  who: readonly string[]
  onWho: (who: readonly string[]) => void
  onOpen: (calendarId: string, part: 'about' | 'access' | 'import' | 'look') => void
  onNewCalendar: () => void
  /** Whether something lies on the desk, which the panel of all layers would cover. */
  hasDesk: boolean
}

/** How many people have room on the strip; more are behind "All layers". */
const roomForPeople = 4

/** The strip under the wall that holds one's layers: press one to show or hide it. */
export function Shelf({
  layers: all,
  address,
  groupId,
  groupName,
  people,
  who,
  onWho,
  onOpen,
  onNewCalendar,
  hasDesk,
}: ShelfProps) {
  const layers = all.filter((layer) => !layer.offShelf)
  const [isOpen, setOpen] = useState(false)
  const [hadDesk, setHadDesk] = useState(hasDesk)
  if (hadDesk !== hasDesk) {
    setHadDesk(hasDesk)
    if (hasDesk) setOpen(false)
  }
  const sets = useQuery(setsQuery)
  const shelf = useShelf(layers, address)
  const here = layers.filter((layer) => layer.groupId === groupId)
  const elsewhere = layers.filter((layer) => layer.groupId !== groupId)
  const open: ShelfProps['onOpen'] = (calendarId, part) => {
    setOpen(false)
    onOpen(calendarId, part)
  }
  const chip = (layer: Layer) => (
    <LayerChip
      key={layer.calendarId}
      layer={layer}
      neighbours={[layers[layers.indexOf(layer) - 1], layers[layers.indexOf(layer) + 1]]}
      shelf={shelf}
      onOpen={open}
    />
  )
  const person = (one: { personId: string; name: string }) => (
    <button
      key={one.personId}
      type="button"
      aria-pressed={who.includes(one.personId)}
      title={`Only what concerns ${one.name}`}
      onClick={() =>
        onWho(
          who.includes(one.personId) ? who.filter((other) => other !== one.personId) : [...who, one.personId],
        )
      }
      className="written h-8 shrink-0 border border-cement-500 px-2 aria-pressed:border-ink aria-pressed:bg-ink aria-pressed:font-bold aria-pressed:text-on-ink"
    >
      {one.name.split(' ')[0]}
    </button>
  )
  const chosenFirst = people.toSorted(
    (a, b) => Number(who.includes(b.personId)) - Number(who.includes(a.personId)),
  )
  return (
    <nav aria-label="Shelf" className="relative border-t border-cement-300 bg-cement-200">
      {isOpen && (
        <AllLayers
          layers={layers}
          chip={chip}
          people={people}
          person={person}
          onClose={() => setOpen(false)}
        />
      )}
      <div className="flex items-center gap-2 px-4 py-2 max-sm:px-2">
        <button
          type="button"
          aria-expanded={isOpen}
          onClick={() => setOpen(!isOpen)}
          title="All layers  L"
          className="flex h-8 shrink-0 items-center gap-1 rounded-control px-1.5 hover:bg-cement-300"
        >
          <ChevronUp size={15} aria-hidden="true" />
          <span className="max-sm:sr-only">All</span>
        </button>
        <div className="fades flex min-w-0 flex-1 gap-2 overflow-hidden pr-6 max-sm:overflow-x-auto">
          {here.map(chip)}
          {people.length > 1 && (
            <>
              <span className="ml-1 flex shrink-0 items-center text-[12px] text-cement-700">people</span>
              {chosenFirst.slice(0, Math.max(roomForPeople, who.length)).map(person)}
            </>
          )}
          {elsewhere.length > 0 && (
            <span className="ml-1 flex shrink-0 items-center text-[12px] text-cement-700">elsewhere</span>
          )}
          {elsewhere.map(chip)}
        </div>
        {who.length > 0 && (
          <button
            type="button"
            onClick={() => onWho([])}
            className="shrink-0 rounded-control px-2 py-1.5 underline hover:bg-cement-300"
          >
            Everybody
          </button>
        )}
        {shelf.showBefore && (
          <button
            type="button"
            title="Shows the layers again that were shown before"
            onClick={shelf.showBefore}
            className="shrink-0 rounded-control px-2 py-1.5 underline hover:bg-cement-300"
          >
            All as before
          </button>
        )}
        <SetsMenu
          sets={sets.data ?? []}
          layers={layers}
          groupId={groupId}
          groupName={groupName}
          onApply={(set) => shelf.showOnly(set.layers)}
        />
        {groupId && (
          <button
            type="button"
            onClick={onNewCalendar}
            className="shrink-0 rounded-control px-2 py-1.5 hover:bg-cement-300"
          >
            + Layer
          </button>
        )}
      </div>
    </nav>
  )
}

interface AllLayersProps {
  layers: readonly Layer[]
  chip: (layer: Layer) => React.ReactNode
  people: readonly { personId: string; name: string }[]
  person: (one: { personId: string; name: string }) => React.ReactNode
  onClose: () => void
}

/** The whole shelf, opened upwards: by group, with the people, and a filter when there are many. */
function AllLayers({ layers, chip, people, person, onClose }: AllLayersProps) {
  const [filter, setFilter] = useState('')
  const has = (text: string) => text.toLowerCase().includes(filter.trim().toLowerCase())
  const groups = Map.groupBy(
    layers.filter((layer) => has(layer.name) || has(layer.groupName ?? '')),
    (layer) => layer.groupName ?? 'Single events given to you',
  )
  return (
    <section
      aria-label="All layers"
      onKeyDown={(event) => {
        if (event.key !== 'Escape') return
        event.stopPropagation()
        onClose()
      }}
      className="absolute inset-x-0 bottom-full z-20 max-h-[60vh] overflow-y-auto border-t border-cement-300 bg-cement-100 px-4 py-3 shadow-lg"
    >
      <div className="mb-2 flex items-center gap-2">
        <input
          aria-label="Filter layers"
          placeholder="Filter layers and people"
          value={filter}
          onChange={(event) => setFilter(event.target.value)}
          // biome-ignore lint/a11y/noAutofocus: it was opened to find something in it
          autoFocus
          className="w-64 rounded-control border border-cement-500 bg-surface px-2 py-1"
        />
        <button
          type="button"
          onClick={onClose}
          className="ml-auto rounded-control px-2 py-1 hover:bg-cement-200"
        >
          Close
        </button>
      </div>
      {[...groups].map(([name, those]) => (
        <div key={name} className="mb-2">
          <h3 className="written mb-1 font-text text-[12px] text-cement-700">{name}</h3>
          <div className="flex flex-wrap gap-2">{those.map(chip)}</div>
        </div>
      ))}
      {people.length > 1 && (
        <div className="mb-2">
          <h3 className="mb-1 font-text text-[12px] text-cement-700">People</h3>
          <div className="flex flex-wrap gap-2">{people.filter((one) => has(one.name)).map(person)}</div>
        </div>
      )}
    </section>
  )
}

interface LayerChipProps {
  layer: Layer
  /** The layers before and after it. */
  neighbours: readonly [Layer | undefined, Layer | undefined]
  shelf: ReturnType<typeof useShelf>
  onOpen: ShelfProps['onOpen']
}

const dragged = 'application/x-mortar-layer'

function LayerChip({ layer, neighbours: [before, after], shelf, onOpen }: LayerChipProps) {
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: its place is also set in its menu
    <span
      data-layer={layer.name}
      data-hue={layer.hue}
      data-shown={layer.shown}
      draggable
      onDragStart={(event) => event.dataTransfer.setData(dragged, layer.calendarId)}
      onDragOver={(event) => event.dataTransfer.types.includes(dragged) && event.preventDefault()}
      onDrop={(event) => {
        event.preventDefault()
        shelf.moveTo(event.dataTransfer.getData(dragged), layer.calendarId)
      }}
      data-busy={layer.role === 'times'}
      className="layer-chip relative flex h-8 shrink-0 items-stretch border data-[shown=false]:border-dashed pointer-coarse:h-11"
    >
      <button
        type="button"
        aria-pressed={layer.shown}
        title={`${layer.shown ? 'Hide' : 'Show'} this layer${layer.role === 'times' ? ' (times only)' : ''}`}
        onClick={() => shelf.lay(layer.calendarId, { shown: !layer.shown })}
        className="flex items-stretch"
      >
        <MarkBlock mark={layer.mark} size={24} />
        <span className="written flex max-w-60 items-center truncate px-1.5 font-bold">
          {layer.name}
          {layer.role === 'times' && <span className="sr-only">, times only</span>}
          {layer.beside && <Columns2 size={12} aria-label="beside" className="ml-1" />}
          {layer.web?.failingSince && (
            <span
              role="img"
              aria-label={`not fetched from the web since ${momentText(layer.web.failingSince)}`}
              className="ml-1"
            >
              !
            </span>
          )}
        </span>
      </button>
      <Menu
        side="top"
        trigger={
          <button
            type="button"
            aria-label={`More for ${layer.name}`}
            className="-ml-0.5 grid min-w-6 place-items-center"
          >
            <EllipsisVertical size={14} aria-hidden="true" />
          </button>
        }
      >
        <MenuLabel>
          {layer.name}: {layer.role === 'none' ? 'single events, given to you' : roleName(layer.role)}
        </MenuLabel>
        {layer.web?.asOf && <MenuLabel>From the web, as of {momentText(layer.web.asOf)}</MenuLabel>}
        <MenuItem onSelect={() => shelf.showOnly([layer])}>Only this one</MenuItem>
        <MenuItem
          onSelect={() =>
            shelf.lay(
              layer.calendarId,
              layer.shown ? { beside: !layer.beside } : { beside: !layer.beside, shown: true },
            )
          }
        >
          {layer.beside ? 'Blend with the others' : 'Set beside the others'}
        </MenuItem>
        {before && (
          <MenuItem onSelect={() => shelf.moveTo(layer.calendarId, before.calendarId)}>
            Put before {before.name}
          </MenuItem>
        )}
        {after && (
          <MenuItem onSelect={() => shelf.moveTo(layer.calendarId, after.calendarId)}>
            Put after {after.name}
          </MenuItem>
        )}
        <MenuItem onSelect={() => onOpen(layer.calendarId, 'look')}>My look</MenuItem>
        {layer.role !== 'none' && (
          <MenuItem onSelect={() => onOpen(layer.calendarId, 'about')}>Open its page</MenuItem>
        )}
        {layer.role !== 'none' && canHaveMore(layer) && (
          <MenuItem onSelect={() => onOpen(layer.calendarId, 'about')}>
            Ask for more than {roleName(layer.role)}
          </MenuItem>
        )}
        <MenuItem onSelect={() => shelf.takeOff(layer)}>Take it off my shelf</MenuItem>
        {layer.role === 'coordinate' && (
          <>
            <MenuLine />
            <MenuItem onSelect={() => onOpen(layer.calendarId, 'access')}>Give access</MenuItem>
            {layer.may.add && (
              <MenuItem onSelect={() => onOpen(layer.calendarId, 'import')}>Import a file</MenuItem>
            )}
          </>
        )}
      </Menu>
    </span>
  )
}
