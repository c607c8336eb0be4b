import { useQuery } from '@tanstack/react-query'
import { Navigate, useParams } from 'react-router'
import type { Schema } from '../../api/client'
import { BarTitle } from '../../frame/BarTitle'
import { TopBar } from '../../frame/TopBar'
import { groupQueries, keepLastGroup } from '../../model/groupQueries'
import { roleName } from '../../model/ladder'
import { shelfQuery } from '../../model/shelfQuery'
import { MarkBlock } from '../../ui/MarkSign'
import { NoSuchGroup } from '../../ui/NoSuchGroup'
import { Page } from '../../ui/Page'
import { TextLink } from '../../ui/TextLink'

/** What its short address leads members to: the calendars of the group that they see, and what the world reads of it. */
export function GroupHomePage() {
  const { name = '' } = useParams()
  const found = useQuery(groupQueries.at(name))
  if (found.data?.shortName && found.data.shortName !== name)
    return <Navigate to={`/g/${found.data.shortName}`} replace />
  return (
    <div className="page">
      <TopBar>
        <BarTitle text={found.data?.name ?? 'Group'} />
      </TopBar>
      {found.isError && <NoSuchGroup />}
      {found.data && <Home group={found.data} />}
    </div>
  )
}

function Home({ group }: { group: Schema['GroupsGroupBody'] }) {
  const shelf = useQuery(shelfQuery)
  const boards = useQuery(groupQueries.openNoticeboards(group.id))
  const layers = (shelf.data ?? []).filter((one) => one.groupId === group.id)
  return (
    <Page title={group.name}>
      <p className="mb-5 flex flex-wrap gap-4">
        <TextLink to={`/roster?group=${group.id}`} onClick={() => keepLastGroup(group.id)}>
          The plan on the wall
        </TextLink>
        <TextLink to={`/groups/${group.id}/people`}>Who is in it</TextLink>
        <TextLink to={`/groups/${group.id}/cover`}>Who is away</TextLink>
        <TextLink to={`/print?group=${group.id}`}>Print</TextLink>
      </p>
      <h2 className="mb-2 text-xl">Calendars you see</h2>
      {shelf.isSuccess && layers.length === 0 && (
        <p className="mb-4 border border-dashed border-cement-500 p-6">
          None yet. Ask a coordinator of {group.name} for one, by its name.
        </p>
      )}
      <ul className="mb-6 grid gap-2">
        {layers.map((layer) => (
          <li
            key={layer.calendarId}
            data-hue={layer.hue}
            className="flex items-center gap-3 border-b border-cement-200 pb-2"
          >
            <MarkBlock mark={layer.mark} size={20} />
            <span className="written min-w-0 flex-1">
              <b className="block">{layer.name}</b>
              <span className="block text-[13px] text-cement-700">{layer.description}</span>
            </span>
            <span className="text-[13px] text-cement-700">{roleName(layer.role)}</span>
          </li>
        ))}
      </ul>
      {(boards.data?.length ?? 0) > 0 && (
        <>
          <h2 className="mb-2 text-xl">What anybody can read</h2>
          <ul className="grid gap-1">
            {boards.data?.map((board) => (
              <li key={board.url}>
                <a href={board.url} className="written underline underline-offset-2">
                  {board.title}
                </a>
              </li>
            ))}
          </ul>
        </>
      )}
    </Page>
  )
}
