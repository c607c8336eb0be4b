import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { type FormEvent, useState } from 'react'
import { fieldProblem } from '../../api/problem'
import type { Layer } from '../../model/bricks'
import { momentText } from '../../reader/dates'
import { Button } from '../../ui/Button'
import { FormProblem } from '../../ui/FormProblem'
import { TextField } from '../../ui/TextField'
import { useActs } from '../../undo/acts'
import { everyText } from './everyText'
import { fetchWebCalendar, moveWebCalendar, webCalendarQuery } from './webCalendarQueries'

/** Where a calendar comes from, as of when, what is wrong where it cannot be fetched, and fetching it now. */
export function WebPart({ layer }: { layer: Layer }) {
  const queries = useQueryClient()
  const acts = useActs()
  const web = useQuery(webCalendarQuery(layer.calendarId)).data
  const [moving, setMoving] = useState(false)
  const fetch = useMutation({
    mutationFn: () => fetchWebCalendar(layer.calendarId),
    onError: (error) => acts.failed(error),
    onSettled: () => queries.invalidateQueries(),
  })
  if (!web) return null
  return (
    <section aria-label="From the web" className="grid gap-2 border-2 border-cement-300 p-3">
      <p className="written">
        From <b>{web.host}</b>
        {web.asOf ? <>, as of {momentText(web.asOf)}</> : ', not fetched yet'}. What is in it is changed where
        it is kept, and only read here.
      </p>
      {web.failingSince && (
        <p role="alert" className="written border-l-4 border-clash pl-2">
          It could not be fetched since {momentText(web.failingSince)}: {web.problem} What was there stays.
        </p>
      )}
      <p className="text-[12px] text-cement-700">
        Fetched {everyText(web.everyMinutes)}; next {momentText(web.nextAt)}.
      </p>
      <div className="flex flex-wrap gap-2">
        <Button disabled={fetch.isPending} onClick={() => fetch.mutate()}>
          {fetch.isPending ? 'Fetching…' : 'Fetch now'}
        </Button>
        {layer.may.coordinate && (
          <Button pressed={moving} onClick={() => setMoving(!moving)}>
            Its address
          </Button>
        )}
      </div>
      {moving && web.url && (
        <Move calendarId={layer.calendarId} address={web.url} onMoved={() => setMoving(false)} />
      )}
    </section>
  )
}

function Move({
  calendarId,
  address,
  onMoved,
}: {
  calendarId: string
  address: string
  onMoved: () => void
}) {
  const queries = useQueryClient()
  const [written, setWritten] = useState(address)
  const move = useMutation({
    mutationFn: () => moveWebCalendar(calendarId, written),
    onSuccess: async () => {
      await queries.invalidateQueries()
      onMoved()
    },
  })
  const submit = (event: FormEvent) => {
    event.preventDefault()
    move.mutate()
  }
  return (
    <form onSubmit={submit} className="grid gap-2" noValidate>
      <TextField
        label="Address"
        hint="Only those who coordinate this calendar see it."
        value={written}
        onChange={setWritten}
        problem={fieldProblem(move.error, 'address')}
        autoComplete="off"
      />
      <FormProblem error={move.error} fields={['address']} />
      <div>
        <Button type="submit" disabled={written === address || move.isPending}>
          Fetch it from there
        </Button>
      </div>
    </form>
  )
}
