import { useQuery } from '@tanstack/react-query'
import type { ReactNode } from 'react'
import { useParams, useSearchParams } from 'react-router'
import { BarTitle } from '../../frame/BarTitle'
import { TopBar } from '../../frame/TopBar'
import { groupQueries } from '../../model/groupQueries'
import { shelfQuery } from '../../model/shelfQuery'
import { Page } from '../../ui/Page'
import { HistoryFilter } from './HistoryFilter'
import { HistoryList } from './HistoryList'
import type { HistoryOf, HistoryWish } from './historyQueries'
import { MomentPart } from './MomentPart'
import { isTopic } from './topics'

/** What one did oneself. */
export function OwnHistoryPage() {
  return <HistoryPage of="mine" title="What I did" groupId={undefined} />
}

/** What was done in a calendar. */
export function CalendarHistoryPage() {
  const { calendarId = '' } = useParams()
  const shelf = useQuery(shelfQuery)
  const layer = shelf.data?.find((one) => one.calendarId === calendarId)
  return (
    <HistoryPage
      of={{ calendarId }}
      title={layer ? `History of ${layer.name}` : 'History'}
      groupId={layer?.groupId ?? undefined}
    >
      {layer?.may.coordinate && <MomentPart calendarId={calendarId} />}
    </HistoryPage>
  )
}

/** What was done in a group: its people, its settings and its calendars. */
export function GroupHistoryPage() {
  const { groupId = '' } = useParams()
  const groups = useQuery(groupQueries.list)
  const group = groups.data?.find((one) => one.id === groupId)
  return (
    <HistoryPage of={{ groupId }} title={group ? `History of ${group.name}` : 'History'} groupId={groupId} />
  )
}

function HistoryPage({
  of,
  title,
  groupId,
  children,
}: {
  of: HistoryOf
  title: string
  groupId: string | undefined
  children?: ReactNode
}) {
  // What it is narrowed to stands in the address: it can be handed on, and Back leads out of it.
  const [search, setSearch] = useSearchParams()
  const topic = search.get('topic') ?? ''
  const wish: HistoryWish = {
    ...fromAddress(search, 'actor'),
    ...fromAddress(search, 'event'),
    ...fromAddress(search, 'from'),
    ...fromAddress(search, 'to'),
    ...(isTopic(topic) && { topic }),
  }
  const change = (next: HistoryWish) =>
    setSearch(Object.fromEntries(Object.entries(next).filter(([, value]) => value)))
  return (
    <div className="page">
      <TopBar>
        <BarTitle text={title} hasHeading />
      </TopBar>
      <Page title={title}>
        {children}
        <HistoryFilter wish={wish} onChange={change} groupId={of === 'mine' ? undefined : groupId} />
        <HistoryList of={of} wish={wish} />
      </Page>
    </div>
  )
}

const fromAddress = (search: URLSearchParams, name: 'actor' | 'event' | 'from' | 'to') => {
  const value = search.get(name)
  return value ? { [name]: value } : {}
}
