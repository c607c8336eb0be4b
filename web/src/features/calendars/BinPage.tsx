import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { Link } from 'react-router'
import { sentenceOf } from '../../api/problem'
import { binQuery, bringBack } from '../../model/calendarQueries'
import { momentText } from '../../reader/dates'
import { Button } from '../../ui/Button'
import { MarkBlock } from '../../ui/MarkSign'
import { Page } from '../../ui/Page'
import { newSet, useActs } from '../../undo/acts'

/** The calendars that were deleted and can be brought back. */
export function BinPage() {
  const queries = useQueryClient()
  const acts = useActs()
  const bin = useQuery(binQuery)
  const back = useMutation({
    mutationFn: async ({ calendarId, name }: { calendarId: string; name: string }) => {
      const set = newSet()
      await bringBack(calendarId, set)
      return { set, name }
    },
    onSuccess: ({ set, name }) => acts.done(`“${name}” is back, with everybody who had access.`, set),
    onError: (error) => acts.failed(error),
    onSettled: () => queries.invalidateQueries(),
  })
  return (
    <Page title="Bin">
      {bin.isError && <p role="alert">{sentenceOf(bin.error)}</p>}
      {bin.data?.length === 0 && (
        <p className="text-cement-700">
          Nothing here. Calendars that you delete wait in the bin for 30 days.{' '}
          <Link to="/" className="underline underline-offset-2">
            Back to the wall
          </Link>
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
