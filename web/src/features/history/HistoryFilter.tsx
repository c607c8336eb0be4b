import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { groupQueries } from '../../model/groupQueries'
import { addDays } from '../../model/times'
import { useNow } from '../../reader/useNow'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { DateField } from '../../ui/DateField'
import type { HistoryWish } from './historyQueries'
import { isTopic, topics } from './topics'

const between = 'between'

/** How many days before today a span begins. */
const daysOf: Record<string, number> = { today: 0, week: 6, month: 29 }

const spans = [
  { value: '', label: 'any time' },
  { value: 'today', label: 'today' },
  { value: 'week', label: 'in the last 7 days' },
  { value: 'month', label: 'in the last 30 days' },
  { value: between, label: 'between two days' },
]

/** The span that a wish begins with; empty for none. */
const spanOf = ({ from }: HistoryWish, today: string): string =>
  Object.keys(daysOf).find((span) => from === addDays(today, -(daysOf[span] ?? 0))) ?? ''

/** What a history is narrowed to: by whom, about what, and when. */
export function HistoryFilter({
  wish,
  onChange,
  groupId,
}: {
  wish: HistoryWish
  onChange: (wish: HistoryWish) => void
  groupId: string | undefined
}) {
  const members = useQuery({ ...groupQueries.members(groupId ?? ''), enabled: groupId !== undefined })
  const [isBetween, setBetween] = useState(wish.to !== undefined)
  const today = useNow().slice(0, 10)
  const { event: _, ...narrowed } = wish
  return (
    <search className="mb-5 grid grid-cols-4 gap-3 max-md:grid-cols-2">
      {groupId && (
        <Choice
          label="By"
          value={wish.actor ?? ''}
          onChange={(actor) => onChange({ ...wish, actor })}
          options={[
            { value: '', label: 'everybody' },
            ...(members.data ?? []).map((one) => ({ value: one.personId, label: one.name })),
          ]}
        />
      )}
      <Choice
        label="About"
        value={wish.topic ?? ''}
        onChange={(topic) => onChange({ ...wish, topic: isTopic(topic) ? topic : undefined })}
        options={[{ value: '', label: 'everything' }, ...topics]}
      />
      <Choice
        label="When"
        value={isBetween ? between : spanOf(wish, today)}
        onChange={(span) => {
          setBetween(span === between)
          const days = daysOf[span]
          onChange({
            ...wish,
            from:
              span === between ? addDays(today, -6) : days === undefined ? undefined : addDays(today, -days),
            to: span === between ? today : undefined,
          })
        }}
        options={spans}
      />
      {isBetween && (
        <>
          <DateField
            label="From"
            value={wish.from ?? today}
            onChange={(from) => onChange({ ...wish, from })}
          />
          <DateField label="To" value={wish.to ?? today} onChange={(to) => onChange({ ...wish, to })} />
        </>
      )}
      {(wish.event || Object.keys(narrowed).length > 0) && (
        <p className="col-span-full">
          {wish.event && 'Only what became of one event. '}
          <Button
            look="link"
            onClick={() => {
              setBetween(false)
              onChange({})
            }}
          >
            Show everything
          </Button>
        </p>
      )}
    </search>
  )
}
