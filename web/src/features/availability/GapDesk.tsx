import type { ReactNode } from 'react'
import { fieldProblem, sentenceOf } from '../../api/problem'
import type { Gap, GapAnswer } from '../../model/availabilityQueries'
import { longDayText } from '../../reader/dates'
import { Alert } from '../../ui/Alert'
import { Desk } from '../../ui/Desk'
import { GapList } from './GapList'
import { GapPeople } from './GapPeople'
import { GapTerms } from './GapTerms'
import type { GapForm } from './gapForm'
import { NoGap } from './NoGap'

interface GapDeskProps {
  form: GapForm
  people: readonly { personId: string; name: string }[]
  places: readonly { calendarId: string; name: string }[]
  answer: GapAnswer | undefined
  error: unknown
  /** Whether the answer is that of an earlier question. */
  waits: boolean
  onForm: (form: GapForm) => void
  /** A gap is chosen: the new event is filled in. */
  onChoose: (gap: Gap) => void
  /** What is kept, to be put to people. */
  kept: readonly Gap[]
  onKeep: (kept: readonly Gap[]) => void
  onPropose: () => void
  /** Somewhere else on the wall is looked at. */
  onGo: (day: string) => void
  onClose: () => void
  /** What stands below: questions that wait to be settled. */
  children?: ReactNode
}

/** When can they all? Who is looked for, how long, where; and the gaps, the best first, all of them lit on the wall. */
export function GapDesk({
  form,
  people,
  places,
  answer,
  error,
  waits,
  onForm,
  onChoose,
  kept,
  onKeep,
  onPropose,
  onGo,
  onClose,
  children,
}: GapDeskProps) {
  const names = new Map([
    ...people.map((one) => [one.personId, one.name] as const),
    ...places.map((one) => [one.calendarId, one.name] as const),
    ...(answer?.people ?? []).map((one) => [one.id, one.name] as const),
  ])
  const nameOf = (id: string) => names.get(id) ?? 'somebody'
  const set = (part: Partial<GapForm>) => onForm({ ...form, ...part })
  const seen = (answer?.people ?? []).filter((one) => one.knowledge === 'seen')
  return (
    <Desk title="Gaps" onClose={onClose}>
      <div className="grid gap-3">
        <GapPeople form={form} people={people} places={places} nameOf={nameOf} onChange={set} />
        <GapTerms form={form} error={error} onChange={set} />
        {error !== null && error !== undefined && !fieldProblem(error, 'to') && (
          <Alert>{sentenceOf(error)}</Alert>
        )}
        {seen.length > 0 && (
          <p className="written text-[12px] text-cement-700">
            Of {seen.map((one) => one.name).join(', ')} only what lies on your layers is known.
          </p>
        )}
        {answer?.lookedThrough && (
          <p role="status" className="border-l-4 border-ink pl-3 text-[13px]">
            Looked as far as {longDayText(answer.lookedThrough)}: with so many people or choices, ask for
            fewer days at once.
          </p>
        )}
        {answer?.why && <NoGap why={answer.why} form={form} nameOf={nameOf} onForm={onForm} onGo={onGo} />}
        {answer && answer.gaps.length > 0 && (
          <GapList
            gaps={answer.gaps}
            more={answer.more}
            waits={waits}
            count={form.count}
            kept={kept}
            nameOf={nameOf}
            onChoose={onChoose}
            onKeep={onKeep}
            onPropose={onPropose}
          />
        )}
        {children}
      </div>
    </Desk>
  )
}
