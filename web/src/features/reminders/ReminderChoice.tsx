import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { fieldProblem } from '../../api/problem'
import { lengthText } from '../../reader/dates'
import { Choice } from '../../ui/Choice'
import { useActs } from '../../undo/acts'
import { type ReminderChoice as Chosen, choiceQuery, choose } from './reminderQueries'

const offered = [0, 10, 30, 60, 1440]

/** How one is reminded of what is in a calendar: kept at once. */
export function ReminderChoice({ calendarId }: { calendarId: string }) {
  const queries = useQueryClient()
  const acts = useActs()
  const query = choiceQuery(calendarId)
  const chosen = useQuery(query)
  const keep = useMutation({
    mutationFn: (choice: Chosen) => choose(calendarId, choice),
    onMutate: (choice) => queries.setQueryData(query.queryKey, choice),
    onSuccess: () => acts.done('Kept for you alone.'),
    onError: (error) => acts.failed(error),
    onSettled: () => void queries.invalidateQueries({ queryKey: query.queryKey }),
  })
  if (!chosen.data) return null
  const { kind, minutes } = chosen.data
  const lengths = kind === 'before' && !offered.includes(minutes) ? [...offered, minutes] : offered
  return (
    <Choice
      label="Remind me"
      value={kind === 'before' ? String(minutes) : kind}
      onChange={(value) =>
        keep.mutate(
          value === 'asEventsSay' || value === 'never'
            ? { kind: value, minutes: 0 }
            : { kind: 'before', minutes: Number(value) },
        )
      }
      options={[
        { value: 'asEventsSay', label: 'of what I am named on, as events say' },
        { value: 'never', label: 'of nothing in it' },
        ...lengths.map((one) => ({
          value: String(one),
          label: one === 0 ? 'of everything, when it begins' : `of everything, ${lengthText(one)} before`,
        })),
      ]}
      problem={fieldProblem(keep.error, 'minutes')}
      hint="In the open application, and by mail unless your preferences say otherwise."
    />
  )
}
