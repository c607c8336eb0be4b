import { useQueryClient } from '@tanstack/react-query'
import { lazy, Suspense, useEffect } from 'react'
import { Navigate, Route, Routes } from 'react-router'
import { TopBar } from '../frame/TopBar'
import { useReader } from '../reader/person'
import { lastView } from '../wall/lastView'
import { WallPage } from '../wall/WallPage'
import { openLiveLine } from './live'

const AccessTablePage = lazy(() =>
  import('../features/access/AccessTablePage').then((module) => ({ default: module.AccessTablePage })),
)

const MembersPage = lazy(() =>
  import('../features/groups/MembersPage').then((module) => ({ default: module.MembersPage })),
)

const PreferencesPage = lazy(() =>
  import('../features/preferences/PreferencesPage').then((module) => ({ default: module.PreferencesPage })),
)

const OwnLinkPage = lazy(() => import('./LinkPage').then((module) => ({ default: module.OwnLinkPage })))

const GroupPage = lazy(() =>
  import('../features/groups/GroupPage').then((module) => ({ default: module.GroupPage })),
)

const CoverPage = lazy(() =>
  import('../features/availability/CoverPage').then((module) => ({ default: module.CoverPage })),
)

const AbsencesPage = lazy(() =>
  import('../features/absences/AbsencesPage').then((module) => ({ default: module.AbsencesPage })),
)

const InboxPage = lazy(() => import('./InboxPage').then((module) => ({ default: module.InboxPage })))

const BinPage = lazy(() =>
  import('../features/calendars/BinPage').then((module) => ({ default: module.BinPage })),
)

const ConfirmAddressPage = lazy(() =>
  import('../features/preferences/ConfirmAddressPage').then((module) => ({
    default: module.ConfirmAddressPage,
  })),
)

const ReminderBar = lazy(() =>
  import('../features/reminders/ReminderBar').then((module) => ({ default: module.ReminderBar })),
)

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
        <Route path="/:view/:date?" element={<WallPage />} />
        <Route path="*" element={<Navigate to={`/${lastView()}`} replace />} />
      </Routes>
    </>
  )
}
