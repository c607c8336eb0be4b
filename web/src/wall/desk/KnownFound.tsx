import { useQuery } from '@tanstack/react-query'
import { type ReactNode, useState } from 'react'
import { AskForm } from '../../features/access'
import { useShelf } from '../../features/shelf/useShelf'
import type { Layer } from '../../model/bricks'
import { canHaveMore, roleName } from '../../model/ladder'
import { Button } from '../../ui/Button'
import { MarkBlock } from '../../ui/MarkSign'
import { knownQuery } from '../read/wallQuery'
import { useTheWall } from '../useWall'

/** People, calendars and groups of a name, with what one can do with each. */
export function KnownFound({ words }: { words: string }) {
  const { at, draft, layers, groups, address } = useTheWall()
  const shelf = useShelf(layers, address)
  const found = useQuery(knownQuery(words)).data
  const nameOf = (groupId: string) => groups.find((one) => one.id === groupId)?.name
  const calendars = (found?.calendars ?? []).flatMap(
    (id) => layers.find((layer) => layer.calendarId === id) ?? [],
  )
  if (!found || found.people.length + calendars.length + found.groups.length === 0) return null
  return (
    <div className="mt-4 grid gap-4">
      {found.people.length > 0 && (
        <Found name="People">
          {found.people.map((one) => (
            <li key={one.personId} className="border-b border-cement-200 py-1.5">
              <span className="written block font-bold">{one.name}</span>
              <span className="written block text-[12px] text-cement-700">
                {one.groups.flatMap((id) => nameOf(id) ?? []).join(', ')}
              </span>
              <Acts>
                <Button
                  look="link"
                  onClick={() => at.place(null, { group: one.groups[0] ?? null, who: one.personId })}
                >
                  Only them on the wall<span className="sr-only">: {one.name}</span>
                </Button>
                <Button look="link" onClick={() => at.place({ kind: 'ask', to: one.name })}>
                  Ask for a calendar<span className="sr-only"> of {one.name}</span>
                </Button>
              </Acts>
            </li>
          ))}
        </Found>
      )}
      {found.groups.length > 0 && (
        <Found name="Groups">
          {groups
            .filter((one) => found.groups.includes(one.id))
            .map((one) => (
              <li key={one.id} className="border-b border-cement-200 py-1.5">
                <span className="written block font-bold">{one.name}</span>
                {one.restsSince && <span className="block text-[12px] text-cement-700">at rest</span>}
                <Acts>
                  <Button look="link" onClick={() => at.place(null, { group: one.id, who: null })}>
                    Open<span className="sr-only"> {one.name}</span>
                  </Button>
                </Acts>
              </li>
            ))}
        </Found>
      )}
      {calendars.length > 0 && (
        <Found name="Calendars">
          {calendars.map((layer) => (
            <Calendar
              key={layer.calendarId}
              layer={layer}
              onOpen={() => draft.put({ kind: 'calendar', calendarId: layer.calendarId, part: 'about' })}
              onShelf={() => (layer.offShelf ? shelf.putBack(layer) : shelf.takeOff(layer))}
            />
          ))}
        </Found>
      )}
    </div>
  )
}

function Calendar({ layer, onOpen, onShelf }: { layer: Layer; onOpen: () => void; onShelf: () => void }) {
  const [asking, setAsking] = useState(false)
  return (
    <li data-hue={layer.hue} className="border-b border-cement-200 py-1.5">
      <span className="flex items-start gap-2">
        <span className="mt-0.5 flex text-layer-text">
          <MarkBlock mark={layer.mark} size={16} />
        </span>
        <span className="min-w-0">
          <span className="written block font-bold">{layer.name}</span>
          <span className="written block text-[12px] text-cement-700">
            {layer.groupName} · {roleName(layer.role)}
            {layer.offShelf && ' · off your shelf'}
          </span>
        </span>
      </span>
      <Acts>
        <Button look="link" onClick={onOpen}>
          Open<span className="sr-only"> {layer.name}</span>
        </Button>
        <Button look="link" onClick={onShelf}>
          {layer.offShelf ? 'Put on my shelf' : 'Take off my shelf'}
          <span className="sr-only">: {layer.name}</span>
        </Button>
        {canHaveMore(layer) && (
          <Button look="link" pressed={asking} onClick={() => setAsking(!asking)}>
            Ask for more<span className="sr-only"> of {layer.name}</span>
          </Button>
        )}
      </Acts>
      {asking && (
        <AskForm calendarIds={[layer.calendarId]} above={layer.role} onAsked={() => setAsking(false)} />
      )}
    </li>
  )
}

function Found({ name, children }: { name: string; children: ReactNode }) {
  return (
    <section aria-label={name}>
      <h3 className="text-base">{name}</h3>
      <ul>{children}</ul>
    </section>
  )
}

function Acts({ children }: { children: ReactNode }) {
  return <span className="mt-0.5 flex flex-wrap gap-x-4 gap-y-1 text-[13px]">{children}</span>
}
