import { useQuery } from '@tanstack/react-query'
import { ladder, type Role } from '../../model/ladder'
import { shelfQuery } from '../../model/shelfQuery'
import { Choice } from '../../ui/Choice'

/** A step on a calendar of one's own. */
export interface Gift {
  calendarId: string
  role: Role
}

interface InReturnFieldProps {
  from: string
  gift: Gift | null
  onGift: (gift: Gift | null) => void
}

/** What one gives in return for an invitation; nothing, unless one chooses something. */
export function InReturnField({ from, gift, onGift }: InReturnFieldProps) {
  const shelf = useQuery(shelfQuery)
  const mine = (shelf.data ?? []).filter((layer) => layer.may.coordinate)
  return (
    <fieldset className="grid gap-2 border-l-4 border-ink pl-3">
      <legend className="sr-only">In return</legend>
      <p className="written">{from} asks for a calendar of yours in return. That is up to you.</p>
      <div className="grid grid-cols-2 gap-2">
        <Choice
          label="In return"
          value={gift?.calendarId ?? ''}
          onChange={(id) => onGift(id === '' ? null : { calendarId: id, role: gift?.role ?? 'times' })}
          options={[
            { value: '', label: mine.length === 0 ? 'You coordinate none yet' : 'Nothing' },
            ...mine.map((layer) => ({ value: layer.calendarId, label: layer.name })),
          ]}
        />
        {gift && (
          <Choice
            label="At the step"
            value={gift.role}
            onChange={(role) => onGift({ ...gift, role })}
            options={ladder}
          />
        )}
      </div>
    </fieldset>
  )
}
