import { useQuery } from '@tanstack/react-query'
import { useParams } from 'react-router'
import { BarTitle } from '../../frame/BarTitle'
import { TopBar } from '../../frame/TopBar'
import { groupQueries } from '../../model/groupQueries'
import { NoSuchGroup } from '../../ui/NoSuchGroup'
import { Page } from '../../ui/Page'
import { EndGroup } from './EndGroup'
import { GroupSettings } from './GroupSettings'

/** A group and its settings. */
export function GroupPage() {
  const { groupId = '' } = useParams()
  const groups = useQuery(groupQueries.list)
  const group = groups.data?.find((one) => one.id === groupId)
  return (
    <div className="page">
      <TopBar>
        <BarTitle text={`Group${group ? `: ${group.name}` : ''}`} hasHeading />
      </TopBar>
      {groups.isSuccess && !group && <NoSuchGroup />}
      {group && (
        <Page title={group.name}>
          {group.restsSince === null && <GroupSettings key={group.version} group={group} />}
          {group.coordinates && <EndGroup group={group} />}
          {group.restsSince !== null && !group.coordinates && (
            <p>It is at rest: it is read and not changed. Whoever coordinates it can wake it.</p>
          )}
        </Page>
      )}
    </div>
  )
}
