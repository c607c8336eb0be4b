import { useQueryClient } from '@tanstack/react-query'
import { type ComponentType, Suspense, useEffect } from 'react'
import { Route, Routes } from 'react-router'
import { TopBar } from '../frame/TopBar'
import { useReader } from '../reader/person'
import { lazyNamed } from '../ui/lazyNamed'
import { WallPage } from '../wall/WallPage'
import { FirstView } from './FirstView'

const AccessTablePage = lazyNamed(() => import('../features/access/AccessTablePage'), 'AccessTablePage')

const MembersPage = lazyNamed(() => import('../features/groups/MembersPage'), 'MembersPage')

const PreferencesPage = lazyNamed(() => import('../features/preferences/PreferencesPage'), 'PreferencesPage')

const OwnLinkPage = lazyNamed(() => import('./LinkPage'), 'OwnLinkPage')

const GroupPage = lazyNamed(() => import('../features/groups/GroupPage'), 'GroupPage')

const GroupHomePage = lazyNamed(() => import('../features/groups/GroupHomePage'), 'GroupHomePage')

const CoverPage = lazyNamed(() => import('../features/availability/CoverPage'), 'CoverPage')

const AbsencesPage = lazyNamed(() => import('../features/absences/AbsencesPage'), 'AbsencesPage')

const NoticeboardsPage = lazyNamed(
  () => import('../features/noticeboards/NoticeboardsPage'),
  'NoticeboardsPage',
)

const NoticeboardPage = lazyNamed(() => import('../features/noticeboards/NoticeboardPage'), 'NoticeboardPage')

const PaperPage = lazyNamed(() => import('../features/paper/PaperPage'), 'PaperPage')

const SpreadsheetPage = lazyNamed(() => import('../features/spreadsheets/SpreadsheetPage'), 'SpreadsheetPage')

const InboxPage = lazyNamed(() => import('./InboxPage'), 'InboxPage')

const BinPage = lazyNamed(() => import('../features/binned/BinPage'), 'BinPage')

const OwnHistoryPage = lazyNamed(() => import('../features/history/HistoryPage'), 'OwnHistoryPage')

const CalendarHistoryPage = lazyNamed(() => import('../features/history/HistoryPage'), 'CalendarHistoryPage')

const GroupHistoryPage = lazyNamed(() => import('../features/history/HistoryPage'), 'GroupHistoryPage')

const ConfirmAddressPage = lazyNamed(
  () => import('../features/preferences/ConfirmAddressPage'),
  'ConfirmAddressPage',
)

const ReminderBar = lazyNamed(() => import('../features/reminders/ReminderBar'), 'ReminderBar')

const SignInAgain = lazyNamed(() => import('../features/accounts/SignInAgain'), 'SignInAgain')

const DownBar = lazyNamed(() => import('./DownBar'), 'DownBar')

const NewsBar = lazyNamed(() => import('../features/inbox/NewsBar'), 'NewsBar')

/** The pages that lay something of their own into the bar. */
const pages: readonly [string, ComponentType][] = [
  ['/calendars/:calendarId/links/:linkId', OwnLinkPage],
  ['/calendars/:calendarId/history', CalendarHistoryPage],
  ['/history', OwnHistoryPage],
  ['/groups/:groupId', GroupPage],
  ['/groups/:groupId/cover', CoverPage],
  ['/groups/:groupId/absences', AbsencesPage],
  ['/groups/:groupId/noticeboards', NoticeboardsPage],
  ['/groups/:groupId/noticeboards/:noticeboardId', NoticeboardPage],
  ['/groups/:groupId/people', MembersPage],
  ['/groups/:groupId/access', AccessTablePage],
  ['/groups/:groupId/history', GroupHistoryPage],
  ['/g/:name', GroupHomePage],
  ['/print', PaperPage],
  ['/spreadsheet', SpreadsheetPage],
]

/** The pages under the bar as it is. */
const underBar: readonly [string, ComponentType][] = [
  ['/inbox', InboxPage],
  ['/preferences', PreferencesPage],
  ['/address/:secret', ConfirmAddressPage],
  ['/bin', BinPage],
]

/** Everything for who is signed in, with the live line open. */
export function SignedInApp() {
  const queries = useQueryClient()
  const { person } = useReader()
  const { id } = person
  useEffect(() => {
    if (!id) return
    // What is on the page comes first; the line then tells what changed since.
    const line = import('./live').then(({ openLiveLine }) => openLiveLine(queries))
    return () => void line.then((close) => close())
  }, [queries, id])

  return (
    <>
      <Suspense fallback={null}>
        <ReminderBar />
        <NewsBar />
        <DownBar />
        <SignInAgain />
      </Suspense>
      <p data-news="true" role="status" className="sr-only" />
      <Routes>
        {pages.map(([path, Shown]) => (
          <Route
            key={path}
            path={path}
            element={
              <Suspense fallback={<TopBar />}>
                <Shown />
              </Suspense>
            }
          />
        ))}
        {underBar.map(([path, Shown]) => (
          <Route
            key={path}
            path={path}
            element={
              <div className="page">
                <TopBar />
                <Suspense fallback={null}>
                  <Shown />
                </Suspense>
              </div>
            }
          />
        ))}
        <Route path="/:view/:date?" element={<WallPage />} />
        <Route path="*" element={<FirstView />} />
      </Routes>
    </>
  )
}
