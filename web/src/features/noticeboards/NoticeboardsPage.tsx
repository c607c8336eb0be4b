import { useQuery } from '@tanstack/react-query'
import { useNavigate, useParams } from 'react-router'
import { sentenceOf } from '../../api/problem'
import { BarTitle } from '../../frame/BarTitle'
import { TopBar } from '../../frame/TopBar'
import { groupQueries } from '../../model/groupQueries'
import { Alert } from '../../ui/Alert'
import { Button } from '../../ui/Button'
import { NoSuchGroup } from '../../ui/NoSuchGroup'
import { Page } from '../../ui/Page'
import { NoticeboardCard } from './NoticeboardCard'
import { noticeboardsQuery } from './noticeboardQueries'

/** The noticeboards of a group: what the world may read of its calendars. */
export function NoticeboardsPage() {
  const { groupId = '' } = useParams()
  const navigate = useNavigate()
  const groups = useQuery(groupQueries.list)
  const group = groups.data?.find((one) => one.id === groupId)
  const boards = useQuery({ ...noticeboardsQuery(groupId), enabled: group !== undefined })
  const makeNew = () => void navigate(`/groups/${groupId}/noticeboards/${crypto.randomUUID()}`)
  if (groups.isSuccess && !group) return <NoSuchGroup />
  return (
    <div className="page">
      <TopBar>
        <BarTitle text={`Noticeboards${group ? `: ${group.name}` : ''}`} hasHeading />
      </TopBar>
      <Page title="Noticeboards">
        <p className="mb-5 max-w-prose text-cement-700">
          Pages that anybody can read without an account: parents, visitors, the neighbours, your own website.
        </p>
        {boards.isError && <Alert>{sentenceOf(boards.error)}</Alert>}
        {boards.data?.length === 0 && (
          <p className="mb-4 border border-dashed border-cement-500 p-6">
            There is none yet. Make one of the calendars you coordinate; nobody reads it until you open it.
          </p>
        )}
        <ul className="mb-6 grid gap-3">
          {boards.data?.map((board) => (
            <NoticeboardCard key={board.noticeboardId} board={board} groupId={groupId} />
          ))}
        </ul>
        {group && (
          <Button look="main" onClick={makeNew}>
            New noticeboard
          </Button>
        )}
      </Page>
    </div>
  )
}
