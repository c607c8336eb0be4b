import { useQuery } from '@tanstack/react-query'
import { sentenceOf } from '../../api/problem'
import { brickKey, type EventBrick, type Layer, titleOf } from '../../model/bricks'
import { addDays, daysOf } from '../../model/times'
import { clockText, longDayText } from '../../reader/dates'
import { useReader } from '../../reader/person'
import { Choice } from '../../ui/Choice'
import { DateField } from '../../ui/DateField'
import { Desk } from '../../ui/Desk'
import { MarkBlock } from '../../ui/MarkSign'
import { TextField } from '../../ui/TextField'
import { findQuery, type Search } from '../read/wallQuery'
import { KnownFound } from './KnownFound'

interface FindDeskProps {
  search: Search
  /** The same as it was asked for last, while it is being typed. */
  asked: Search
  layers: readonly Layer[]
  people: readonly { personId: string; name: string }[]
  onSearch: (search: Search) => void
  onOpen: (brick: EventBrick) => void
  onClose: () => void
}

/** How many days after the first can be looked through. */
const reach = 1_999

/** A day, or the nearest one from the first to the last. */
const within = (day: string, first: string, last: string): string =>
  day < first ? first : day > last ? last : day

/** Finds events over everything one may see, which stand out on the wall too, and people, calendars and groups one knows of. */
export function FindDesk({ search, asked, layers, people, onSearch, onOpen, onClose }: FindDeskProps) {
  const isAsked = asked.words.trim() !== '' || asked.person !== '' || asked.kind !== ''
  const found = useQuery({ ...findQuery(asked), enabled: isAsked })
  const set = (part: Partial<Search>) => onSearch({ ...search, ...part })
  const kinds = [...new Set(layers.flatMap((layer) => layer.kinds.map((kind) => kind.name)))]
  const { person, now } = useReader()
  const thisYear = Number(new Date(now()).toLocaleDateString('sv', { timeZone: person.zone }).slice(0, 4))
  const dayOf = (day: string) =>
    Number(day.slice(0, 4)) === thisYear ? longDayText(day) : `${longDayText(day)} ${day.slice(0, 4)}`
  const byId = new Map(layers.map((layer) => [layer.calendarId, layer]))
  return (
    <Desk title="Find" onClose={onClose}>
      <div className="grid gap-3">
        <TextField
          label="Words in title, place or notes, or a name"
          value={search.words}
          onChange={(words) => set({ words })}
          autoFocus
        />
        <div className="grid grid-cols-2 gap-2">
          <Choice
            label="Who"
            value={search.person}
            onChange={(person) => set({ person })}
            options={[
              { value: '', label: 'Anybody' },
              ...people.map((one) => ({ value: one.personId, label: one.name })),
            ]}
          />
          <Choice
            label="Calendar"
            value={search.calendar}
            onChange={(calendar) => set({ calendar })}
            options={[
              { value: '', label: 'Any' },
              ...layers.map((layer) => ({ value: layer.calendarId, label: layer.name })),
            ]}
          />
          {kinds.length > 0 && (
            <Choice
              label="Kind"
              value={search.kind}
              onChange={(kind) => set({ kind })}
              options={[{ value: '', label: 'Any' }, ...kinds.map((kind) => ({ value: kind, label: kind }))]}
            />
          )}
        </div>
        <div className="grid grid-cols-[repeat(auto-fit,minmax(9.75rem,1fr))] gap-2">
          <DateField
            label="From"
            value={search.from}
            onChange={(from) => set({ from, to: within(search.to, from, addDays(from, reach)) })}
          />
          <DateField
            label="To"
            value={search.to}
            onChange={(to) => set({ to, from: within(search.from, addDays(to, -reach), to) })}
          />
        </div>
      </div>
      {asked.words.trim() !== '' && <KnownFound words={asked.words.trim()} />}
      {found.isError && (
        <p role="alert" className="mt-3 text-clash">
          {sentenceOf(found.error)}
        </p>
      )}
      {isAsked && found.data && (
        <section aria-label="What was found" className="mt-4">
          <h3 className="text-base">Events</h3>
          <p role="status" className="text-[12px] text-cement-700">
            {found.data.hits.length === 0
              ? 'Nothing found. Try fewer words, or other days.'
              : `${found.data.hits.length}${found.data.more ? ' and more' : ''} found${found.data.more ? '; add a word to see fewer' : ''}`}
          </p>
          <ul>
            {found.data.hits.map((hit) => {
              const layer = byId.get(hit.calendarId)
              const brick: EventBrick = { ...hit, form: 'event' }
              return (
                layer && (
                  <li key={brickKey(brick)}>
                    <button
                      type="button"
                      data-hue={layer.hue}
                      onClick={() => onOpen(brick)}
                      className="flex w-full items-start gap-2 border-b border-cement-200 py-1.5 text-left hover:bg-cement-100"
                    >
                      <span className="mt-0.5 flex text-layer-text">
                        <MarkBlock mark={layer.mark} size={16} />
                      </span>
                      <span className="min-w-0">
                        <span className="written block truncate font-bold">
                          {titleOf(hit.title, layer.purpose)}
                        </span>
                        <span className="written block text-[12px] text-cement-700">
                          {dayOf(daysOf(hit.time).first)}
                          {hit.time.form !== 'days' && `, ${clockText(hit.time.start)}`}
                          {hit.place && ` · ${hit.place}`}
                        </span>
                      </span>
                    </button>
                  </li>
                )
              )
            })}
          </ul>
        </section>
      )}
    </Desk>
  )
}
