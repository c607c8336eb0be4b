import { useMutation, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import type { Schema } from '../../api/client'
import { sentenceOf } from '../../api/problem'
import { Alert } from '../../ui/Alert'
import { Button } from '../../ui/Button'
import { Note } from '../../ui/Note'
import { Progress } from '../../ui/Progress'
import { archiveQuery, makeArchive, stopArchive } from './archiveQueries'

/** All at once: a file for each calendar one sees, who has what, and a page that says what is in it. */
export function ArchivePart({ group }: { group: Schema['GroupsGroupBody'] | undefined }) {
  const [id, setId] = useState<string | null>(null)
  const archive = useQuery(archiveQuery(id))
  const make = useMutation({
    mutationFn: (groupId: string | null) => makeArchive(crypto.randomUUID(), groupId),
    onSuccess: (made) => setId(made.id),
  })
  const stop = useMutation({
    mutationFn: (archiveId: string) => stopArchive(archiveId),
    onSuccess: () => archive.refetch(),
  })
  const error = make.error ?? stop.error ?? archive.error
  const state = archive.data?.state
  return (
    <section
      aria-label="Everything at once"
      className="mt-10 grid max-w-lg gap-3 border-t border-cement-300 pt-6"
    >
      <h2 className="text-xl">Everything at once</h2>
      <Note>
        One archive with a file for each calendar, as other calendar programs read it, and for the groups you
        coordinate a table of who has what. One of all has what is your own besides: account and preferences,
        what you may do, what you put in and what you did.
      </Note>
      {error && <Alert>{sentenceOf(error)}</Alert>}
      {state === 'making' && archive.data ? (
        <>
          <Progress
            label={
              archive.data.total > 0
                ? `Calendar ${archive.data.done} of ${archive.data.total}`
                : 'Waiting for its turn'
            }
            part={archive.data.total > 0 ? archive.data.done / archive.data.total : null}
          />
          <div>
            <Button onClick={() => id && stop.mutate(id)}>Stop</Button>
          </div>
        </>
      ) : (
        <div className="flex flex-wrap gap-2">
          {group && <Button onClick={() => make.mutate(group.id)}>Make one of {group.name}</Button>}
          <Button onClick={() => make.mutate(null)}>Make one of all that I see</Button>
        </div>
      )}
      <p role="status">
        {state === 'stopped' && 'Stopped; there is no archive.'}
        {state === 'failed' &&
          'It could not be made. Try again; if it stays so, tell whoever runs this Mortar.'}
        {state === 'done' && archive.data && (
          <a
            href={`/api/archives/${archive.data.id}/file`}
            download={archive.data.name}
            className="font-bold underline underline-offset-2"
          >
            Save {archive.data.name} ({sizeText(archive.data.bytes)})
          </a>
        )}
      </p>
    </section>
  )
}

const sizeText = (bytes: number): string =>
  bytes < 1_000_000
    ? `${Math.max(1, Math.round(bytes / 1_000))} kB`
    : `${(bytes / 1_000_000).toLocaleString('en-GB', { maximumFractionDigits: 1 })} MB`
