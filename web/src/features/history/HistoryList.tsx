import { useInfiniteQuery, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { sentenceOf } from '../../api/problem'
import { eventKey } from '../../model/bricks'
import { shelfQuery } from '../../model/shelfQuery'
import { momentText } from '../../reader/dates'
import { useReader } from '../../reader/person'
import { Button } from '../../ui/Button'
import { MarkBlock } from '../../ui/MarkSign'
import { TextLink } from '../../ui/TextLink'
import { useActs } from '../../undo/acts'
import { actText } from '../../undo/actText'
import { type HistoryOf, type HistoryWish, historyQuery, type PastAct } from './historyQueries'

/** What was done, the latest first, each with its way back. */
export function HistoryList({ of, wish }: { of: HistoryOf; wish: HistoryWish }) {
  const history = useInfiniteQuery(historyQuery(of, wish))
  if (history.isError) return <p role="alert">{sentenceOf(history.error)}</p>
  if (!history.data) return null
  const acts = history.data.pages.flatMap((page) => page.acts)
  return (
    <>
      {acts.length === 0 && !history.hasNextPage && (
        <p className="text-cement-700">
          {Object.keys(wish).length > 0 ? 'Nothing of that was done.' : 'Nothing was done so far.'}{' '}
          <TextLink to="/">To the wall</TextLink>
        </p>
      )}
      <ol className="divide-y divide-cement-200 border-y border-cement-200 empty:hidden">
        {acts.map((act) => (
          <Entry key={`${act.act} ${act.actorId}`} act={act} of={of} />
        ))}
      </ol>
      {history.hasNextPage && (
        <div className="mt-4">
          <Button disabled={history.isFetchingNextPage} onClick={() => void history.fetchNextPage()}>
            Show earlier
          </Button>
        </div>
      )}
    </>
  )
}

function Entry({ act, of }: { act: PastAct; of: HistoryOf }) {
  const acts = useActs()
  const { person } = useReader()
  const shelf = useQuery(shelfQuery)
  const [isUndoing, setUndoing] = useState(false)
  const layer = shelf.data?.find((one) => one.calendarId === act.calendarId)
  const event = act.count === 1 ? act.deeds.find(({ eventId }) => eventId)?.eventId : undefined
  const undo = () => {
    setUndoing(true)
    const calendar = of !== 'mine' && 'calendarId' in of ? { calendar: of.calendarId } : {}
    void acts.undoAct(act.act, calendar).finally(() => setUndoing(false))
  }
  return (
    <li data-hue={layer?.hue} className="flex flex-wrap items-start gap-x-3 gap-y-1 py-2">
      <span className="flex pt-0.5 text-layer-text">
        {layer ? <MarkBlock mark={layer.mark} size={20} /> : <span className="w-5" />}
      </span>
      <div className="min-w-48 flex-1">
        <p className="written">
          {of !== 'mine' && (
            <span className="font-bold">{act.actorId === person.id ? 'You' : act.actorName}</span>
          )}
          {of !== 'mine' && ' · '}
          {actText(act)}
        </p>
        <p className="text-[12px] text-cement-700">
          {momentText(act.at)}
          {layer && !(of !== 'mine' && 'calendarId' in of) && (
            <span className="written"> · {layer.name}</span>
          )}
          {act.isUndo && ' · took something back'}
          {act.isUndone && ' · undone since'}
          {event && layer && (
            <>
              {' · '}
              <TextLink to={`/week?desk=event~${eventKey(event, null)}`}>open</TextLink>
            </>
          )}
        </p>
      </div>
      {act.canBeUndone && !act.isUndone && (
        <Button look="link" disabled={isUndoing} onClick={undo}>
          {act.isUndo ? 'Do it again' : 'Undo'}
          <span className="sr-only"> {actText(act)}</span>
        </Button>
      )}
    </li>
  )
}
