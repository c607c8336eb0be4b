import { useId, useState } from 'react'
import { inputLook } from '../../ui/TextField'

interface WhoFieldProps {
  members: readonly { personId: string; name: string }[]
  attendees: readonly string[]
  onChange: (attendees: string[]) => void
}

/** Who it is for: those named as chips, others added by typing part of their name. */
export function WhoField({ members, attendees, onChange }: WhoFieldProps) {
  const id = useId()
  const [typed, setTyped] = useState('')
  const names = new Map(members.map((member) => [member.personId, member.name]))
  const words = typed.trim().toLowerCase()
  const offered = members
    .filter((member) => !attendees.includes(member.personId) && member.name.toLowerCase().includes(words))
    .slice(0, 6)
  const name = (personId: string) => {
    onChange([...attendees, personId])
    setTyped('')
  }
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
        placeholder={attendees.length === 0 ? 'nobody in particular' : 'and …'}
        onChange={(event) => setTyped(event.target.value)}
        onKeyDown={(event) => {
          if (event.key !== 'Enter' || words === '') return
          event.preventDefault()
          if (offered[0]) name(offered[0].personId)
        }}
        className={inputLook}
      />
      {words !== '' && (
        <ul className="border border-cement-300 bg-surface">
          {offered.map((member) => (
            <li key={member.personId}>
              <button
                type="button"
                onClick={() => name(member.personId)}
                className="written w-full px-2 py-1 text-left hover:bg-cement-200"
              >
                {member.name}
              </button>
            </li>
          ))}
          {offered.length === 0 && <li className="px-2 py-1 text-cement-700">Nobody of that name here.</li>}
        </ul>
      )}
    </div>
  )
}
