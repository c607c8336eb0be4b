import { useQueryClient } from '@tanstack/react-query'
import { ChevronDown } from 'lucide-react'
import { type FormEvent, useState } from 'react'
import type { Layer } from '../../model/bricks'
import { deleteSet, type LayerSet, writeSet } from '../../model/shelfQuery'
import { viewAddress } from '../../model/useAddressLayers'
import { Menu, MenuItem, MenuLabel, MenuLine } from '../../ui/Menu'
import { useActs } from '../../undo/acts'

interface SetsMenuProps {
  sets: readonly LayerSet[]
  layers: readonly Layer[]
  groupId: string | undefined
  groupName: string | undefined
  onApply: (set: LayerSet) => void
}

/** Named choices of layers: one's own, and those that were given to one's groups. */
export function SetsMenu({ sets, layers, groupId, groupName, onApply }: SetsMenuProps) {
  const queries = useQueryClient()
  const acts = useActs()
  const [naming, setNaming] = useState<string | null>(null)
  const fresh = () => queries.invalidateQueries({ queryKey: ['sets'] })
  const shown = layers
    .filter((layer) => layer.shown)
    .map(({ calendarId, beside }) => ({ calendarId, beside }))
  const keep = async (set: Omit<LayerSet, 'mine'>, sentence: string) => {
    try {
      await writeSet(set)
      acts.done(sentence)
      await fresh()
    } catch (error) {
      acts.failed(error)
    }
  }
  const add = (event: FormEvent) => {
    event.preventDefault()
    const name = naming?.trim() ?? ''
    setNaming(null)
    if (name === '') return
    void keep(
      { id: crypto.randomUUID(), name, groupId: null, layers: shown },
      shown.length === 1
        ? `Kept the one layer in view as “${name}”.`
        : `Kept the ${shown.length} layers in view as “${name}”.`,
    )
  }
  const erase = async (set: LayerSet) => {
    try {
      await deleteSet(set.id)
      acts.offer(
        `Deleted the set “${set.name}”.`,
        'Bring it back',
        () => void keep(set, `“${set.name}” is back.`),
      )
      await fresh()
    } catch (error) {
      acts.failed(error)
    }
  }
  const copyAddress = async () => {
    try {
      await navigator.clipboard.writeText(viewAddress(window.location.href, layers))
      acts.done('Copied the address of this view, with the layers in it. Everybody sees in it what they may.')
    } catch (error) {
      acts.failed(error)
    }
  }
  const own = sets.filter((set) => set.mine)
  if (naming !== null)
    return (
      <form onSubmit={add} className="flex shrink-0 gap-1">
        <input
          aria-label="Name of the set"
          value={naming}
          placeholder="Firing week"
          onChange={(event) => setNaming(event.target.value)}
          onBlur={() => setNaming(null)}
          // biome-ignore lint/a11y/noAutofocus: the field stands where the person just pressed
          autoFocus
          className="w-32 rounded-control border border-cement-500 bg-surface px-2 py-1"
        />
      </form>
    )
  return (
    <Menu
      side="top"
      trigger={
        <button
          type="button"
          className="flex shrink-0 items-center gap-1 rounded-control px-2 py-1.5 hover:bg-cement-300"
        >
          Sets <ChevronDown size={14} aria-hidden="true" />
        </button>
      }
    >
      {sets.length > 0 && <MenuLabel>Show only the layers of</MenuLabel>}
      {sets.map((set) => (
        <MenuItem key={set.id} onSelect={() => onApply(set)}>
          <span className="written">
            {set.name}
            <span className="text-[12px]">
              {' '}
              {set.layers.length} {set.layers.length === 1 ? 'layer' : 'layers'}
              {set.groupId && ', of the group'}
            </span>
          </span>
        </MenuItem>
      ))}
      {sets.length > 0 && <MenuLine />}
      <MenuItem onSelect={() => setNaming('')}>Keep what is shown as a set</MenuItem>
      <MenuItem onSelect={() => void copyAddress()}>Copy the address of this view</MenuItem>
      {own.map((set) => (
        <div key={set.id}>
          <MenuItem
            onSelect={() => void keep({ ...set, layers: shown }, `“${set.name}” has what is shown now.`)}
          >
            Put what is shown into “{set.name}”
          </MenuItem>
          {groupId && (
            <MenuItem
              onSelect={() =>
                void keep(
                  { ...set, groupId: set.groupId ? null : groupId },
                  set.groupId
                    ? `“${set.name}” is yours alone again.`
                    : `Everybody in ${groupName ?? 'the group'} has “${set.name}” now.`,
                )
              }
            >
              {set.groupId ? `Take “${set.name}” back from the group` : `Give “${set.name}” to ${groupName}`}
            </MenuItem>
          )}
          <MenuItem onSelect={() => void erase(set)}>Delete “{set.name}”</MenuItem>
        </div>
      ))}
    </Menu>
  )
}
