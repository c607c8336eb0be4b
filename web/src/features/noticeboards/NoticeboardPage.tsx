import { useQuery } from '@tanstack/react-query'
import { useParams } from 'react-router'
import { BarTitle } from '../../frame/BarTitle'
import { TopBar } from '../../frame/TopBar'
import { groupQueries } from '../../model/groupQueries'
import { Page } from '../../ui/Page'
import { TextLink } from '../../ui/TextLink'
import { NoticeboardEditor } from './NoticeboardEditor'
import { blankSettings, noticeboardsQuery } from './noticeboardQueries'

/** One noticeboard: its settings, and beside them the page itself. */
export function NoticeboardPage() {
  const { groupId = '', noticeboardId = '' } = useParams()
  const groups = useQuery(groupQueries.list)
  const group = groups.data?.find((one) => one.id === groupId)
  const boards = useQuery({ ...noticeboardsQuery(groupId), enabled: group !== undefined })
  const board = boards.data?.find((one) => one.noticeboardId === noticeboardId)
  const isMissing = (groups.isSuccess && !group) || boards.isError || (board && !board.mayChange)
  return (
    <div className="page">
      <TopBar>
        <BarTitle text={board?.settings.title || 'New noticeboard'} />
      </TopBar>
      {isMissing ? (
        <Page title="There is no such noticeboard, or it is not yours to change">
          <TextLink to={group ? `/groups/${groupId}/noticeboards` : '/'}>Back</TextLink>
        </Page>
      ) : (
        group &&
        boards.isSuccess && (
          <NoticeboardEditor
            key={noticeboardId}
            noticeboardId={noticeboardId}
            board={board}
            group={group}
            begun={board?.settings ?? blankSettings(groupId, group.zone)}
          />
        )
      )}
    </div>
  )
}
