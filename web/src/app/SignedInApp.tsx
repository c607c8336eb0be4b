import { useQueryClient } from '@tanstack/react-query'
import { Suspense, useEffect } from 'react'
import { Navigate, Route, Routes } from 'react-router'
import { TopBar } from '../frame/TopBar'
import { useReader } from '../reader/person'
import { lazyNamed } from '../ui/lazyNamed'
import { lastView } from '../wall/read/lastView'
import { WallPage } from '../wall/WallPage'
import { openLiveLine } from './live'

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

const ConfirmAddressPage = lazyNamed(
  () => import('../features/preferences/ConfirmAddressPage'),
  'ConfirmAddressPage',
)

const ReminderBar = lazyNamed(() => import('../features/reminders/ReminderBar'), 'ReminderBar')

/** Everything for who is signed in, with the live line open. */
export function SignedInApp() {
  const queries = useQueryClient()
  const { person } = useReader()
  const { id } = person
  useEffect(() => {
    if (id) return openLiveLine(queries)
  }, [queries, id])

  return (
    <>
      <Suspense fallback={null}>
        <ReminderBar />
      </Suspense>
      <p data-news="true" role="status" className="sr-only" />
      <Routes>
        <Route
          path="/inbox"
          element={
            <div className="flex h-full flex-col">
              <TopBar />
              <Suspense fallback={null}>
                <InboxPage />
              </Suspense>
            </div>
          }
        />
        <Route
          path="/preferences"
          element={
            <div className="flex h-full flex-col">
              <TopBar />
              <Suspense fallback={null}>
                <PreferencesPage />
              </Suspense>
            </div>
          }
        />
        <Route
          path="/address/:secret"
          element={
            <div className="flex h-full flex-col">
              <TopBar />
              <Suspense fallback={null}>
                <ConfirmAddressPage />
              </Suspense>
            </div>
          }
        />
        <Route
          path="/bin"
          element={
            <div className="flex h-full flex-col">
              <TopBar />
              <Suspense fallback={null}>
                <BinPage />
              </Suspense>
            </div>
          }
        />
        <Route
          path="/calendars/:calendarId/links/:linkId"
          element={
            <Suspense fallback={<TopBar />}>
              <OwnLinkPage />
            </Suspense>
          }
        />
        <Route
          path="/groups/:groupId"
          element={
            <Suspense fallback={<TopBar />}>
              <GroupPage />
            </Suspense>
          }
        />
        <Route
          path="/groups/:groupId/cover"
          element={
            <Suspense fallback={<TopBar />}>
              <CoverPage />
            </Suspense>
          }
        />
        <Route
          path="/groups/:groupId/absences"
          element={
            <Suspense fallback={<TopBar />}>
              <AbsencesPage />
            </Suspense>
          }
        />
        <Route
          path="/groups/:groupId/noticeboards"
          element={
            <Suspense fallback={<TopBar />}>
              <NoticeboardsPage />
            </Suspense>
          }
        />
        <Route
          path="/groups/:groupId/noticeboards/:noticeboardId"
          element={
            <Suspense fallback={<TopBar />}>
              <NoticeboardPage />
            </Suspense>
          }
        />
        <Route
          path="/groups/:groupId/people"
          element={
            <Suspense fallback={<TopBar />}>
              <MembersPage />
            </Suspense>
          }
        />
        <Route
          path="/groups/:groupId/access"
          element={
            <Suspense fallback={<TopBar />}>
              <AccessTablePage />
            </Suspense>
          }
        />
        <Route
          path="/g/:name"
          element={
            <Suspense fallback={<TopBar />}>
              <GroupHomePage />
            </Suspense>
          }
        />
        <Route
          path="/print"
          element={
            <Suspense fallback={<TopBar />}>
              <PaperPage />
            </Suspense>
          }
        />
        <Route
          path="/spreadsheet"
          element={
            <Suspense fallback={<TopBar />}>
              <SpreadsheetPage />
            </Suspense>
          }
        />
        <Route path="/:view/:date?" element={<WallPage />} />
        <Route path="*" element={<Navigate to={`/${lastView()}`} replace />} />
      </Routes>
    </>
  )
}
