import { useQuery } from '@tanstack/react-query'
import { type FormEvent, useDeferredValue, useState } from 'react'
import type { Schema } from '../../api/client'
import { shelfQuery } from '../../model/shelfQuery'
import { Button } from '../../ui/Button'
import { FormProblem } from '../../ui/FormProblem'
import { TextLink } from '../../ui/TextLink'
import { useSettled } from '../../ui/useSettled'
import { useAct } from '../../undo/useAct'
import { AddressField } from './AddressField'
import { ElsewhereFields } from './ElsewhereFields'
import { LayerFields } from './LayerFields'
import { LookPart } from './LookPart'
import {
  type BoardView,
  type Noticeboard,
  type Settings,
  trialQuery,
  writeNoticeboard,
} from './noticeboardQueries'
import { OpenPart } from './OpenPart'
import { TextFields } from './TextFields'
import { Trial } from './Trial'

interface EditorProps {
  noticeboardId: string
  /** As it is kept; undefined for one that is not yet. */
  board: Noticeboard | undefined
  group: Schema['GroupsGroupBody']
  begun: Settings
}

const fields = ['title', 'words', 'name', 'layers', 'views', 'daysAhead', 'sites']

/** The settings on the left, the page as the world would get it on the right: it changes as one types. */
export function NoticeboardEditor({ noticeboardId, board, group, begun }: EditorProps) {
  const shelf = useQuery(shelfQuery)
  const [wish, setWish] = useState<Settings>(begun)
  const [version, setVersion] = useState(board?.version ?? null)
  const [view, setView] = useState<BoardView>()
  const [error, setError] = useState<unknown>(null)
  const set = (part: Partial<Settings>) => setWish((before) => ({ ...before, ...part }))
  const settled = useSettled(useDeferredValue(wish))
  const trial = useQuery(trialQuery(noticeboardId, settled, view))
  const isChanged = JSON.stringify(wish) !== JSON.stringify(board?.settings)
  const save = useAct({
    run: (_: undefined, act) => writeNoticeboard(noticeboardId, version, wish, act),
    say: () =>
      board ? `Changed “${wish.title}”.` : `Made “${wish.title}”. Nobody reads it until you open it.`,
    freshen: ['noticeboards'],
    onDone: (kept) => {
      setError(null)
      setVersion(kept.version)
      setWish(kept.settings)
    },
    saysItself: true,
  })
  const submit = (event: FormEvent) => {
    event.preventDefault()
    save.mutate(undefined, { onError: setError })
  }
  const props = { wish, error, onChange: set }
  return (
    <div className="grid min-h-0 flex-1 grid-cols-[22rem_minmax(0,1fr)] max-sm:block max-sm:overflow-y-auto">
      <form
        onSubmit={submit}
        noValidate
        aria-label="Settings"
        className="relative grid min-h-0 scroll-pb-24 content-start gap-6 overflow-y-auto border-r border-cement-300 bg-cement-50 p-4"
      >
        <h1 className="sr-only">{board ? board.settings.title : 'New noticeboard'}</h1>
        <TextLink to={`/groups/${group.id}/noticeboards`}>All noticeboards</TextLink>
        {board && (
          <OpenPart
            board={board}
            isChanged={isChanged}
            counted={trial.data?.counted}
            onVersion={setVersion}
          />
        )}
        <TextFields {...props} />
        <LayerFields {...props} layers={shelf.data ?? []} groupId={group.id} />
        <AddressField {...props} noticeboardId={noticeboardId} url={board?.url} />
        <LookPart {...props} />
        <ElsewhereFields {...props} url={isChanged ? undefined : board?.url} />
        <FormProblem error={error} fields={fields} />
        <div className="sticky -bottom-4 -mx-4 -mb-4 border-t border-cement-300 bg-cement-50 p-4">
          <Button type="submit" look="main" wide disabled={save.isPending || (board && !isChanged)}>
            {board ? (isChanged ? 'Save' : 'Saved') : 'Make it'}
          </Button>
        </div>
      </form>
      <Trial
        trial={trial.data}
        error={trial.error}
        isWaiting={trial.isFetching}
        views={wish.views}
        view={view ?? wish.views[0]}
        onView={setView}
      />
    </div>
  )
}
