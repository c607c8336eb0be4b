import { useEffect, useRef, useState } from 'react'
import { useNavigate } from 'react-router'
import { Button } from '../../ui/Button'
import { CopyField } from '../../ui/CopyField'
import { Question } from '../../ui/Question'
import { useAct } from '../../undo/useAct'
import { endNoticeboard, type Noticeboard, openNoticeboard, pauseNoticeboard } from './noticeboardQueries'
import { OpensChart } from './OpensChart'
import { stateWords } from './stateWords'

interface OpenPartProps {
  board: Noticeboard
  /** Whether something is written that is not saved: what would be opened is not what is looked at. */
  isChanged: boolean
  counted: string | undefined
  onVersion: (version: number) => void
}

/** Whether the world reads it, where, and how often it did. */
export function OpenPart({ board, isChanged, counted, onVersion }: OpenPartProps) {
  const navigate = useNavigate()
  const top = useRef<HTMLElement>(null)
  // Once it is made this is what comes next, wherever one was in its settings.
  useEffect(() => {
    if (board.version === 1) top.current?.scrollIntoView({ block: 'nearest' })
  }, [board.version])
  const [asks, setAsks] = useState<'open' | 'end' | null>(null)
  const { title } = board.settings
  const open = useAct({
    run: (_: undefined, set) => openNoticeboard(board.noticeboardId, set),
    say: () => `“${title}” is open to the world.`,
    freshen: ['noticeboards'],
    onDone: (kept) => onVersion(kept.version),
  })
  const pause = useAct({
    run: (_: undefined, set) => pauseNoticeboard(board.noticeboardId, set),
    say: () => `Nobody reads “${title}” until you open it again.`,
    freshen: ['noticeboards'],
    onDone: (kept) => onVersion(kept.version),
  })
  const end = useAct({
    run: (_: undefined, set) => endNoticeboard(board.noticeboardId, set),
    say: () => `Ended “${title}”.`,
    freshen: ['noticeboards'],
    onDone: () => navigate(`/groups/${board.settings.groupId}/noticeboards`),
  })
  return (
    <section
      ref={top}
      className="grid gap-3 border-2 border-ink bg-surface p-3"
      aria-label="Open to the world"
    >
      <p className="font-bold">{stateWords(board)}</p>
      {board.isRead && (
        <>
          <CopyField label="Its address" text={board.url} />
          <OpensChart opens={board.opens} />
        </>
      )}
      <div className="flex flex-wrap gap-2">
        {board.isRead ? (
          <>
            <Button onClick={() => window.open(board.url, '_blank', 'noreferrer')}>Look at it</Button>
            <Button onClick={() => window.open(`${board.url}/poster`, '_blank', 'noreferrer')}>
              Poster to hang up
            </Button>
            <Button onClick={() => pause.mutate(undefined)}>Pause</Button>
          </>
        ) : (
          <Button look="main" disabled={isChanged} onClick={() => setAsks('open')}>
            Open it to the world
          </Button>
        )}
        <Button look="danger" onClick={() => setAsks('end')}>
          End it
        </Button>
      </div>
      {!board.isRead && isChanged && (
        <p className="text-[12px] text-cement-700">Save what you wrote before you open it.</p>
      )}
      {asks === 'open' && (
        <Question
          title={`Open “${title}” to the world?`}
          yes="Open it"
          no="Not yet"
          onYes={() => open.mutate(undefined)}
          onClose={() => setAsks(null)}
        >
          {board.sentence} {counted && `That is ${counted}.`}
        </Question>
      )}
      {asks === 'end' && (
        <Question
          title={`End “${title}”?`}
          yes="End it"
          onYes={() => end.mutate(undefined)}
          onClose={() => setAsks(null)}
        >
          Its address leads nowhere from then on, also where it is printed or shown in a website. The
          calendars stay as they are.
        </Question>
      )}
    </section>
  )
}
