import { useQuery } from '@tanstack/react-query'
import { shelfQuery } from '../../model/shelfQuery'
import { Button } from '../../ui/Button'
import { TextLink } from '../../ui/TextLink'
import { useAct } from '../../undo/useAct'
import { type Noticeboard, takeOffNoticeboard } from './noticeboardQueries'
import { OpensChart } from './OpensChart'
import { stateWords } from './stateWords'

/** One noticeboard in the list: what the world sees, whether it does, and how often it did. */
export function NoticeboardCard({ board, groupId }: { board: Noticeboard; groupId: string }) {
  const shelf = useQuery(shelfQuery)
  const mine = board.settings.layers.flatMap(
    (layer) => shelf.data?.filter((one) => one.calendarId === layer.calendarId && one.may.coordinate) ?? [],
  )
  const takeOff = useAct({
    run: (calendar: { calendarId: string; name: string }, set) =>
      takeOffNoticeboard(board.noticeboardId, calendar.calendarId, set),
    say: (_, { name }) => `“${name}” is no longer on “${board.settings.title}”.`,
    freshen: ['noticeboards'],
  })
  return (
    <li className="grid gap-2 border border-cement-300 bg-surface p-4">
      <div className="flex flex-wrap items-baseline gap-x-3">
        <h2 className="written text-lg">
          {board.mayChange ? (
            <TextLink to={`/groups/${groupId}/noticeboards/${board.noticeboardId}`}>
              {board.settings.title}
            </TextLink>
          ) : (
            board.settings.title
          )}
        </h2>
        <span data-state={board.isRead} className="text-[12px] data-[state=true]:font-bold">
          {stateWords(board)}
        </span>
      </div>
      <p className="text-cement-700">{board.sentence}</p>
      {board.isRead && (
        <p className="flex flex-wrap items-center gap-x-4 gap-y-1">
          <a href={board.url} target="_blank" rel="noreferrer" className="break-all underline">
            {board.url}
          </a>
          <OpensChart opens={board.opens} />
        </p>
      )}
      {!board.mayChange && (
        <p className="flex flex-wrap items-center gap-2 text-[12px] text-cement-700">
          {board.keeper} keeps it.
          {mine.map((calendar) => (
            <Button key={calendar.calendarId} onClick={() => takeOff.mutate(calendar)}>
              Take “{calendar.name}” off it
            </Button>
          ))}
        </p>
      )}
    </li>
  )
}
