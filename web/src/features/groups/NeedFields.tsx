import { useQuery } from '@tanstack/react-query'
import type { Schema } from '../../api/client'
import { groupQueries } from '../../model/groupQueries'
import { asClock, asMinutes, weekdays } from '../../reader/preferences'
import { Button } from '../../ui/Button'
import { ClockField } from '../../ui/ClockField'
import { TextField } from '../../ui/TextField'

type Need = Schema['GroupsNeedBody']

interface NeedFieldsProps {
  groupId: string
  needs: readonly Need[]
  onChange: (needs: Need[]) => void
}

/** How many of whom a group needs, on which weekdays and in which hours. */
export function NeedFields({ groupId, needs, onChange }: NeedFieldsProps) {
  const set = (index: number, part: Partial<Need>) =>
    onChange(needs.map((one, at) => (at === index ? { ...one, ...part } : one)))
  const add = () =>
    onChange([
      ...needs,
      {
        name: needs.length === 0 ? '' : `Need ${needs.length + 1}`,
        begins: null,
        ends: null,
        people: [],
        days: [0, 0, 0, 0, 0, 0, 0],
      },
    ])
  return (
    <div className="grid gap-3">
      {needs.map((need, index) => (
        <NeedItem
          // biome-ignore lint/suspicious/noArrayIndexKey: a need has no name of its own while it is written
          key={index}
          groupId={groupId}
          need={need}
          onChange={(part) => set(index, part)}
          onRemove={() => onChange(needs.filter((_, at) => at !== index))}
        />
      ))}
      <div>
        <Button onClick={add}>{needs.length === 0 ? 'Say how many are needed' : 'Add another'}</Button>
      </div>
    </div>
  )
}

interface NeedItemProps {
  groupId: string
  need: Need
  onChange: (part: Partial<Need>) => void
  onRemove: () => void
}

function NeedItem({ groupId, need, onChange, onRemove }: NeedItemProps) {
  const members = useQuery(groupQueries.members(groupId))
  const called = need.name === '' ? 'everybody' : need.name
  const hasHours = need.begins !== null || need.ends !== null
  return (
    <section
      aria-label={`Cover: ${called}`}
      className="grid gap-2 rounded-control border border-cement-300 bg-surface p-3"
    >
      <div className="flex flex-wrap items-end gap-3">
        <div className="w-48">
          <TextField
            label="What for"
            value={need.name}
            placeholder="the group as a whole"
            onChange={(name) => onChange({ name })}
          />
        </div>
        <label className="flex items-center gap-2 pb-1.5">
          <input
            type="checkbox"
            checked={hasHours}
            onChange={(event) =>
              onChange(event.target.checked ? { begins: 540, ends: 780 } : { begins: null, ends: null })
            }
            className="size-4 accent-ink"
          />
          In some hours only
        </label>
        {hasHours && (
          <>
            <div className="w-24">
              <ClockField
                label="From"
                value={asClock(need.begins ?? 0)}
                onChange={(clock) => onChange({ begins: asMinutes(clock) })}
              />
            </div>
            <div className="w-24">
              <ClockField
                label="to"
                value={asClock(need.ends ?? 1439)}
                onChange={(clock) => onChange({ ends: asMinutes(clock) })}
              />
            </div>
          </>
        )}
        <div className="ml-auto">
          <Button onClick={onRemove}>
            Take away<span className="sr-only"> {called}</span>
          </Button>
        </div>
      </div>
      <div className="grid grid-cols-7 gap-2 max-sm:grid-cols-4">
        {weekdays.map((day, at) => (
          <TextField
            key={day}
            label={`${day[0]?.toUpperCase()}${day.slice(1, 3)}`}
            type="number"
            value={String(need.days[at] ?? 0)}
            onChange={(number) =>
              onChange({ days: need.days.map((one, its) => (its === at ? Math.trunc(Number(number)) : one)) })
            }
          />
        ))}
      </div>
      <fieldset>
        <legend className="text-[12px] text-cement-700">
          Of whom{need.people.length === 0 && ': everybody in the group'}
        </legend>
        <ul className="flex flex-wrap gap-x-4 gap-y-1">
          {(members.data ?? []).map((member) => (
            <li key={member.personId}>
              <label className="flex items-center gap-1.5">
                <input
                  type="checkbox"
                  checked={need.people.includes(member.personId)}
                  onChange={(event) =>
                    onChange({
                      people: event.target.checked
                        ? [...need.people, member.personId]
                        : need.people.filter((one) => one !== member.personId),
                    })
                  }
                  className="size-4 accent-ink"
                />
                <span className="written">{member.name}</span>
              </label>
            </li>
          ))}
        </ul>
      </fieldset>
    </section>
  )
}
