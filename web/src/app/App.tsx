import { useQuery } from '@tanstack/react-query'
import { Suspense } from 'react'
import { Navigate, Route, Routes } from 'react-router'
import { sentenceOf } from '../api/problem'
import { FirstAccountPage } from '../features/accounts/FirstAccountPage'
import { SignInPage } from '../features/accounts/SignInPage'
import { InvitationPage } from '../features/invitation/InvitationPage'
import { JoinPage } from '../features/invitation/JoinPage'
import { PersonProvider } from '../reader/person'
import { type Person, sessionQuery } from '../reader/session'
import { lazyNamed } from '../ui/lazyNamed'
import { Page } from '../ui/Page'

const SignedInApp = lazyNamed(() => import('./SignedInApp'), 'SignedInApp')

const LinkPage = lazyNamed(() => import('./LinkPage'), 'LinkPage')

const PostRoomPage = lazyNamed(() => import('../features/post-room/PostRoomPage'), 'PostRoomPage')

const AnswerPage = lazyNamed(() => import('../features/answers/AnswerPage'), 'AnswerPage')

const StopPage = lazyNamed(() => import('../features/post-room/StopPage'), 'StopPage')

const SuitsPage = lazyNamed(() => import('../features/proposals/SuitsPage'), 'SuitsPage')

/** Chooses between what is there for everybody and what is there for who is signed in. */
export function App() {
  const session = useQuery(sessionQuery)
  if (session.isError) return <Page title="Mortar cannot be reached">{sentenceOf(session.error)}</Page>
  if (!session.data) return null

  const { person, demo, needsFirstAccount, now } = session.data
  return (
    <Routes>
      <Route path="/invitation/:token" element={<InvitationPage />} />
      <Route path="/join/:token" element={<JoinPage />} />
      <Route
        path="/link/:secret"
        element={
          <Suspense fallback={null}>
            <LinkPage />
          </Suspense>
        }
      />
      <Route
        path="/answer/:secret"
        element={
          <Suspense fallback={null}>
            <AnswerPage />
          </Suspense>
        }
      />
      <Route
        path="/suits/:secret"
        element={
          <Suspense fallback={null}>
            <SuitsPage />
          </Suspense>
        }
      />
      <Route
        path="/stop/:token"
        element={
          <Suspense fallback={null}>
            <StopPage />
          </Suspense>
        }
      />
      {demo && (
        <Route
          path="/post-room"
          element={
            <Suspense fallback={null}>
              <PostRoomPage />
            </Suspense>
          }
        />
      )}
      <Route
        path="/first-account"
        element={needsFirstAccount ? <FirstAccountPage /> : <Navigate to="/" replace />}
      />
      <Route
        path="*"
        element={
          person ? (
            <SignedIn person={person} now={now} demo={demo} />
          ) : (
            <Welcome first={needsFirstAccount} demo={demo} />
          )
        }
      />
    </Routes>
  )
}

function Welcome({ first, demo }: { first: boolean; demo: boolean }) {
  return first ? <Navigate to="/first-account" replace /> : <SignInPage demo={demo} />
}

function SignedIn({ person, now, demo }: { person: Person; now: string; demo: boolean }) {
  return (
    <PersonProvider person={person} now={now} demo={demo}>
      <Suspense fallback={null}>
        <SignedInApp />
      </Suspense>
    </PersonProvider>
  )
}
