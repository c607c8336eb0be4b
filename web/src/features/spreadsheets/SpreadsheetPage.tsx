import { useMutation, useQuery } from '@tanstack/react-query'
import { type FormEvent, useRef } from 'react'
import { useSearchParams } from 'react-router'
import { fieldProblem, isSaidAt, sentenceOf } from '../../api/problem'
import { BarTitle } from '../../frame/BarTitle'
import { TopBar } from '../../frame/TopBar'
import { groupQueries } from '../../model/groupQueries'
import { namedPeriods } from '../../model/namedPeriods'
import { dateNamed } from '../../model/times'
import { useReader } from '../../reader/person'
import { isoDay } from '../../reader/preferences'
import { useNow } from '../../reader/useNow'
import { Alert } from '../../ui/Alert'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { Page } from '../../ui/Page'
import { PeriodFields } from '../../ui/PeriodFields'
import { ArchivePart } from '../archives'
import { kinds, type SpreadsheetWish, saveSpreadsheet } from './fetchSpreadsheet'

/** What one sees, to take along: as a spreadsheet, or everything at once. */
export function SpreadsheetPage() {
  const { preferences } = useReader().person
  const [search, setSearch] = useSearchParams()
  const groups = useQuery(groupQueries.list)
  const stop = useRef<AbortController>(null)
  const month = namedPeriods(useNow().slice(0, 10), isoDay(preferences.firstDay)).find(
    (one) => one.label === 'This month',
  )
  const group = groups.data?.find((one) => one.id === search.get('group')) ?? groups.data?.[0]
  const wish: SpreadsheetWish = {
    what: kinds.find((one) => one.value === search.get('what'))?.value ?? 'events',
    group: group?.id ?? '',
    from: dateNamed(search.get('from') ?? undefined) ?? month?.from ?? '',
    to: dateNamed(search.get('to') ?? undefined) ?? month?.to ?? '',
    form: search.get('form') === 'csv' ? 'csv' : 'xlsx',
  }
  const save = useMutation({
    mutationFn: (asked: SpreadsheetWish) => {
      stop.current = new AbortController()
      return saveSpreadsheet(asked, stop.current.signal)
    },
  })
  const change = (part: Partial<SpreadsheetWish>) => {
    save.reset()
    setSearch({ ...wish, ...part }, { replace: true })
  }
  const submit = (event: FormEvent) => {
    event.preventDefault()
    save.mutate(wish)
  }
  const isStopped = save.error instanceof DOMException && save.error.name === 'AbortError'
  return (
    <div className="page">
      <TopBar>
        <BarTitle text={`Take along${group ? `: ${group.name}` : ''}`} hasHeading />
      </TopBar>
      <Page title="Take along">
        <h2 className="mb-4 text-xl">As a spreadsheet</h2>
        <form onSubmit={submit} className="grid max-w-lg gap-5">
          <div className="grid grid-cols-2 gap-2">
            <Choice
              label="What"
              value={wish.what}
              onChange={(what) => change({ what })}
              options={kinds}
              hint={kinds.find((one) => one.value === wish.what)?.hint}
            />
            <Choice
              label="Of"
              value={wish.group}
              onChange={(of) => change({ group: of })}
              options={(groups.data ?? []).map((one) => ({ value: one.id, label: one.name }))}
            />
          </div>
          {wish.what !== 'access' && (
            <PeriodFields value={wish} problem={fieldProblem(save.error, 'to')} onChange={change} />
          )}
          <Choice
            label="As"
            value={wish.form}
            onChange={(form) => change({ form })}
            options={[
              { value: 'xlsx', label: 'Workbook (.xlsx)' },
              { value: 'csv', label: 'Comma-separated values (.csv)' },
            ]}
            hint={
              wish.form === 'csv' && wish.what === 'absences'
                ? 'The list alone; the grid is a file of its own.'
                : undefined
            }
          />
          {save.isError && !isStopped && !isSaidAt(save.error, ['to']) && (
            <Alert>{sentenceOf(save.error)}</Alert>
          )}
          <div className="flex items-center gap-3">
            <Button type="submit" look="main" disabled={save.isPending || !group}>
              Save
            </Button>
            {save.isPending && <Button onClick={() => stop.current?.abort()}>Stop</Button>}
            <p role="status" className="text-cement-700">
              {save.isPending && 'Being made.'}
              {save.isSuccess && `Saved as ${save.data}.`}
              {isStopped && 'Stopped; nothing was saved.'}
            </p>
          </div>
          <p className="text-[13px] text-cement-700">
            It holds what you see, and nothing that is kept from you. Whoever gets the file reads all of it.
          </p>
        </form>
        <ArchivePart group={group} />
      </Page>
    </div>
  )
}
