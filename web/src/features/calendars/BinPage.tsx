import { useQuery } from '@tanstack/react-query'
import { sentenceOf } from '../../api/problem'
import { binQuery, bringBack } from '../../model/calendarQueries'
import { momentText } from '../../reader/dates'
import { Button } from '../../ui/Button'
import { MarkBlock } from '../../ui/MarkSign'
import { Page } from '../../ui/Page'
import { TextLink } from '../../ui/TextLink'
import { useAct } from '../../undo/useAct'

/** The calendars that were deleted and can be brought back. */
export function BinPage() {
  const bin = useQuery(binQuery)
  const back = useAct({
    run: ({ calendarId }: { calendarId: string; name: string }, set) => bringBack(calendarId, set),
    say: (_, { name }) => `“${name}” is back, with everybody who had access.`,
    freshen: 'all',
  })
  return (
    <Page title="Bin">
      {bin.isError && <p role="alert">{sentenceOf(bin.error)}</p>}
      {bin.data?.length === 0 && (
        <p className="text-cement-700">
          Nothing here. Calendars that you delete wait in the bin for 30 days.{' '}
          <TextLink to="/">Back to the wall</TextLink>
        </p>
      )}
      <ul className="grid gap-3">
        {bin.data?.map((one) => (
          <li
            key={one.calendarId}
            data-hue={one.hue}
            className="flex flex-wrap items-center gap-3 rounded-control border border-cement-300 bg-surface p-3"
          >
            <span className="flex text-layer-text">
              <MarkBlock mark={one.mark} size={32} />
            </span>
            <div className="min-w-48 flex-1">
              <h2 className="written text-base">{one.name}</h2>
              <p className="written text-[12px] text-cement-700">
                {one.groupName}, {one.events} events. {one.deletedBy} deleted it on{' '}
                {momentText(one.deletedAt)}. It is kept until {momentText(one.keptUntil)}.
              </p>
            </div>
            <Button disabled={back.isPending} onClick={() => back.mutate(one)}>
              Bring back
            </Button>
          </li>
        ))}
      </ul>
    </Page>
  )
}
