import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useId, useState } from 'react'
import { fieldProblem, sentenceOf } from '../../api/problem'
import { addGuest, groupQueries } from '../../model/groupQueries'
import { inputLook } from '../../ui/TextField'

interface WhoFieldProps {
  /** The group of the calendar; null where one is not in it. */
  group: { id: string; name: string } | null
  members: readonly { personId: string; name: string }[]
  attendees: readonly string[]
  onChange: (attendees: string[]) => void
}

/** Who it is for: those named as chips; others by part of their name, by their address, or the whole group at once. */
export function WhoField({ group, members, attendees, onChange }: WhoFieldProps) {
  const id = useId()
  const queries = useQueryClient()
  const [typed, setTyped] = useState('')
  const guests = useQuery({ ...groupQueries.guests(group?.id ?? ''), enabled: group !== null, retry: false })
  const people = [...members, ...(guests.data ?? [])]
  const names = new Map(people.map((one) => [one.personId, one.name]))
  const words = typed.trim().toLowerCase()
  const offered = people
    .filter((one) => !attendees.includes(one.personId) && one.name.toLowerCase().includes(words))
    .slice(0, 6)
  const missing = members.filter((one) => !attendees.includes(one.personId))
  const isAddress = group !== null && words.includes('@')
  const name = (personId: string) => {
    if (!attendees.includes(personId)) onChange([...attendees, personId])
    setTyped('')
  }
  const invite = useMutation({
    mutationFn: (text: string) => addGuest(group?.id ?? '', text),
    onSuccess: async (guest) => {
      await queries.invalidateQueries({ queryKey: ['groups', group?.id, 'guests'] })
      name(guest.personId)
    },
  })
  const accept = () => (offered[0] ? name(offered[0].personId) : isAddress && invite.mutate(typed))
  return (
    <div className="grid gap-1">
      <label htmlFor={id} className="text-[12px] text-cement-700">
        Who
      </label>
      {attendees.length > 0 && (
        <ul className="flex flex-wrap gap-1">
          {attendees.map((person) => (
            <li key={person} className="flex items-stretch border border-cement-500 bg-surface text-[13px]">
              <span className="written px-1.5 py-0.5">{names.get(person) ?? 'somebody else'}</span>
              <button
                type="button"
                aria-label={`Take off ${names.get(person) ?? 'somebody else'}`}
                onClick={() => onChange(attendees.filter((one) => one !== person))}
                className="px-1.5 hover:bg-cement-200"
              >
                ×
              </button>
            </li>
          ))}
        </ul>
      )}
      <input
        id={id}
        value={typed}
        autoComplete="off"
        placeholder={attendees.length === 0 ? 'a name, or an address' : 'and …'}
        onChange={(event) => {
          setTyped(event.target.value)
          invite.reset()
        }}
        onKeyDown={(event) => {
          if (event.key !== 'Enter' || words === '') return
          event.preventDefault()
          accept()
        }}
        className={inputLook}
      />
      {words !== '' && (
        <ul className="border border-cement-300 bg-surface">
          {offered.map((one) => (
            <li key={one.personId}>
              <button
                type="button"
                onClick={() => name(one.personId)}
                className="written w-full px-2 py-1 text-left hover:bg-cement-200"
              >
                {one.name}
              </button>
            </li>
          ))}
          {isAddress && (
            <li>
              <button
                type="button"
                disabled={invite.isPending}
                onClick={() => invite.mutate(typed)}
                className="w-full px-2 py-1 text-left hover:bg-cement-200"
              >
                Name <span className="written">{typed.trim()}</span>, who is not in the group
                <span className="block text-[12px] text-cement-700">
                  They can be asked by mail and answer without an account.
                </span>
              </button>
            </li>
          )}
          {offered.length === 0 && !isAddress && (
            <li className="px-2 py-1 text-cement-700">Nobody of that name here. An address works as well.</li>
          )}
        </ul>
      )}
      {invite.isError && (
        <p role="alert" className="text-[13px] text-clash">
          {fieldProblem(invite.error, 'text') ?? sentenceOf(invite.error)}
        </p>
      )}
      {group && missing.length > 1 && (
        <button
          type="button"
          onClick={() => onChange([...attendees, ...missing.map((one) => one.personId)])}
          className="justify-self-start text-[13px] underline underline-offset-2"
        >
          Everybody in {group.name} ({members.length})
        </button>
      )}
    </div>
  )
}
