import { useQuery } from '@tanstack/react-query'
import { fieldProblem } from '../../api/problem'
import { Check } from '../../ui/Check'
import { NameField } from '../../ui/NameField'
import { useSettled } from '../../ui/useSettled'
import { addressQuery } from './noticeboardQueries'
import type { SettingsProps } from './settingsProps'

/** The name in its address: chosen and checked as it is typed, or one that nobody guesses. */
export function AddressField({
  wish,
  error,
  onChange,
  noticeboardId,
  url,
}: SettingsProps & { noticeboardId: string; url: string | undefined }) {
  const hasName = wish.name !== null && wish.name !== undefined
  const name = useSettled(wish.name ?? '')
  const title = useSettled(wish.title ?? '')
  const look = useQuery(addressQuery(wish.groupId, noticeboardId, name, title))
  const isAsked = name === wish.name
  const before = `${(url ? new URL(url).host : location.host).replace(/^www\./, '')}/b/`
  return (
    <fieldset className="grid gap-2">
      <legend className="mb-1 font-head text-lg font-bold">Address</legend>
      <Check
        label="A short name that can be said and printed"
        hint="Without it the address is one that nobody guesses."
        checked={hasName}
        onChange={(checked) => onChange({ name: checked ? (look.data?.instead[0] ?? '') : null })}
      />
      {hasName && (
        <NameField
          before={before}
          value={wish.name ?? ''}
          look={isAsked ? look.data : undefined}
          problem={fieldProblem(error, 'name')}
          onChange={(name) => onChange({ name })}
        />
      )}
      <Check
        label="Search engines may list it"
        checked={wish.listed}
        onChange={(listed) => onChange({ listed })}
      />
    </fieldset>
  )
}
