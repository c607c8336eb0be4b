import { useQuery } from '@tanstack/react-query'
import type { Schema } from '../../api/client'
import { groupQueries } from '../../model/groupQueries'
import { Check } from '../../ui/Check'
import { NameField } from '../../ui/NameField'
import { Note } from '../../ui/Note'
import { useSettled } from '../../ui/useSettled'

interface GroupAddressProps {
  group: Schema['GroupsGroupBody']
  value: string
  problem: string | undefined
  onChange: (name: string) => void
}

/** The group's own short address: for its members, who find there what they may see of it. */
export function GroupAddress({ group, value, problem, onChange }: GroupAddressProps) {
  const name = useSettled(value)
  const look = useQuery(groupQueries.address(group.id, name, group.coordinates))
  const before = `${location.host}/g/`
  if (!group.coordinates)
    return group.shortName ? (
      <p>
        Its short address is{' '}
        <b>
          {before}
          {group.shortName}
        </b>
        .
      </p>
    ) : null
  return (
    <fieldset className="grid gap-2">
      <legend className="mb-1 font-head text-lg font-bold">Short address</legend>
      <Note>
        For its members, to say and to print: whoever is in the group and signs in finds there what they may
        see of it. Others learn nothing.
      </Note>
      <Check
        label="It has one"
        checked={value !== ''}
        onChange={(checked) =>
          onChange(checked ? group.shortName || (look.data?.instead[0] ?? `our-group`) : '')
        }
      />
      {value !== '' && (
        <div className="max-w-md">
          <NameField
            before={before}
            value={value}
            look={name === value ? look.data : undefined}
            problem={problem}
            onChange={onChange}
          />
        </div>
      )}
    </fieldset>
  )
}
