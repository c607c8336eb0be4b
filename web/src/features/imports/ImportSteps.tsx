import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useRef, useState } from 'react'
import type { Schema } from '../../api/client'
import { sentenceOf } from '../../api/problem'
import type { Layer } from '../../model/bricks'
import { Alert } from '../../ui/Alert'
import { Button } from '../../ui/Button'
import { Progress } from '../../ui/Progress'
import { newSet, useActs } from '../../undo/acts'
import { FileContents } from './FileContents'
import { bringFile, type Import, orderImport, readImport, stopImport } from './importQueries'
import { SheetColumns } from './SheetColumns'

/** From a file to events: bring it, see what is in it, write it or not. */
export function ImportSteps({ layer }: { layer: Layer }) {
  const [read, setRead] = useState<Import | null>(null)
  const [file, setFile] = useState<File | null>(null)
  const [writing, setWriting] = useState<string | null>(null)
  if (!read)
    return (
      <BringFile
        layer={layer}
        onRead={(brought, from) => {
          setRead(brought)
          setFile(from)
        }}
      />
    )
  if (writing) {
    return (
      <Writing
        layer={layer}
        read={read}
        set={writing}
        onAgain={() => {
          setRead(null)
          setWriting(null)
        }}
      />
    )
  }
  return (
    <Decide
      layer={layer}
      read={read}
      file={file}
      onMended={setRead}
      onWriting={setWriting}
      onOther={() => setRead(null)}
    />
  )
}

function BringFile({ layer, onRead }: { layer: Layer; onRead: (read: Import, file: File) => void }) {
  const [part, setPart] = useState(0)
  const stop = useRef<AbortController | null>(null)
  const bring = useMutation({
    mutationFn: (file: File) => {
      stop.current = new AbortController()
      setPart(0)
      return bringFile(layer.calendarId, crypto.randomUUID(), file, setPart, stop.current.signal)
    },
    onSuccess: (read, file) => onRead(read, file),
  })
  const stopped = bring.error instanceof DOMException
  return (
    <div className="grid gap-3">
      <p className="text-cement-700">
        Choose an <b>.ics</b> file, as other calendar programs export it, or a spreadsheet (<b>.xlsx</b> or{' '}
        <b>.csv</b>) with an event a row. You see what is in it before anything is written.
      </p>
      <label className="grid cursor-pointer gap-1 border-2 border-dashed border-cement-500 bg-surface p-4 text-center font-bold has-focus-visible:outline-2 has-focus-visible:outline-focus">
        Choose a file
        <input
          type="file"
          accept=".ics,.xlsx,.csv,.tsv,text/calendar,text/csv"
          disabled={bring.isPending}
          onChange={(event) => {
            const file = event.target.files?.[0]
            if (file) bring.mutate(file)
            event.target.value = ''
          }}
          className="w-full text-[12px] font-normal"
        />
      </label>
      {bring.isPending && (
        <>
          <Progress
            label={part < 1 ? 'Sending the file' : 'Reading the file'}
            part={part < 1 ? part : null}
          />
          <Button onClick={() => stop.current?.abort()}>Stop</Button>
        </>
      )}
      {bring.isError && !stopped && <Alert>{sentenceOf(bring.error)}</Alert>}
    </div>
  )
}

interface DecideProps {
  layer: Layer
  read: Import
  file: File | null
  onMended: (read: Import) => void
  onWriting: (set: string) => void
  onOther: () => void
}

function Decide({ layer, read, file, onMended, onWriting, onOther }: DecideProps) {
  const [known, setKnown] = useState<Schema['KnownEvents']>('keep')
  const order = useMutation({
    mutationFn: async () => {
      const set = newSet()
      await orderImport(layer.calendarId, read.id, known, set)
      return set
    },
    onSuccess: onWriting,
  })
  const count = read.events - read.same - (known === 'keep' ? read.different : 0)
  return (
    <div className="grid gap-3">
      {read.sheet && file && (
        <SheetColumns layer={layer} read={read} sheet={read.sheet} file={file} onMended={onMended} />
      )}
      <FileContents read={read} />
      {read.different > 0 && (
        <fieldset className="grid gap-1">
          <legend className="mb-1 text-[12px] text-cement-700">
            The {read.different} that are here and differ
          </legend>
          <label className="flex items-center gap-2">
            <input
              type="radio"
              name="known"
              checked={known === 'keep'}
              onChange={() => setKnown('keep')}
              className="accent-ink"
            />
            stay as they are here
          </label>
          <label className="flex items-center gap-2">
            <input
              type="radio"
              name="known"
              checked={known === 'update'}
              onChange={() => setKnown('update')}
              className="accent-ink"
            />
            become what the file says
          </label>
        </fieldset>
      )}
      {order.isError && <Alert>{sentenceOf(order.error)}</Alert>}
      <Button look="main" wide disabled={count === 0 || order.isPending} onClick={() => order.mutate()}>
        {count === 0 ? 'Nothing to import' : `Import ${count.toLocaleString('en-GB')} into ${layer.name}`}
      </Button>
      <Button onClick={onOther}>Choose another file</Button>
    </div>
  )
}

function Writing({
  layer,
  read,
  set,
  onAgain,
}: {
  layer: Layer
  read: Import
  set: string
  onAgain: () => void
}) {
  const queries = useQueryClient()
  const acts = useActs()
  const progress = useQuery({
    queryKey: ['imports', read.id],
    queryFn: () => readImport(layer.calendarId, read.id),
    staleTime: 0,
    refetchInterval: (query) => (query.state.data?.state === 'writing' || !query.state.data ? 300 : false),
  })
  const state = progress.data?.state ?? 'writing'
  const written = progress.data?.written ?? 0
  const told = useRef(false)
  useEffect(() => {
    if (state !== 'done' || told.current) return
    told.current = true
    acts.done(`Imported ${written.toLocaleString('en-GB')} into “${layer.name}”.`, set)
    void queries.invalidateQueries({ queryKey: ['wall'] })
  }, [state, written, layer.name, set, acts, queries])

  if (state === 'writing' || state === 'ready') {
    const dealt = progress.data?.dealt ?? 0
    return (
      <div className="grid gap-3">
        <Progress
          label={`${dealt.toLocaleString('en-GB')} of ${read.events.toLocaleString('en-GB')}`}
          part={dealt / read.events}
        />
        <Button onClick={() => stopImport(layer.calendarId, read.id).catch(acts.failed)}>
          Stop and write nothing
        </Button>
      </div>
    )
  }
  return (
    <div className="grid gap-3">
      <p>
        {state === 'done' &&
          `${written.toLocaleString('en-GB')} are in “${layer.name}” now. Undo takes all of them back at once.`}
        {state === 'stopped' && 'Stopped. Nothing was written.'}
        {state === 'failed' && progress.data?.problem}
      </p>
      <Button onClick={onAgain}>Import another file</Button>
    </div>
  )
}
