import { useQuery } from '@tanstack/react-query'
import { useParams } from 'react-router'
import { sentenceOf } from '../../api/problem'
import { BarTitle } from '../../frame/BarTitle'
import { TopBar } from '../../frame/TopBar'
import { groupQueries } from '../../model/groupQueries'
import { TextLink } from '../../ui/TextLink'
import { Members } from './Members'

/** Who is in a group, with and without accounts; for coordinators also adding, correcting, inviting again, taking out. */
export function MembersPage() {
  const { groupId = '' } = useParams()
  const groups = useQuery(groupQueries.list)
  const members = useQuery({ ...groupQueries.members(groupId), retry: false })
  const group = groups.data?.find((one) => one.id === groupId)
  return (
    <div className="page">
      <TopBar>
        <BarTitle text={`People${group ? `: ${group.name}` : ''}`} />
      </TopBar>
      <main className="min-h-0 flex-1 overflow-y-auto bg-cement-50">
        {members.isError && (
          <div className="p-8">
            <p role="alert">{sentenceOf(members.error)}</p>
            <TextLink to="/">Back to the wall</TextLink>
          </div>
        )}
        {group && members.data && <Members group={group} members={members.data} />}
      </main>
    </div>
  )
}
