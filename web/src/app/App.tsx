import { useQuery } from '@tanstack/react-query'
import { type ComponentType, Suspense } from 'react'
import { Navigate, Route, Routes } from 'react-router'
import { sentenceOf } from '../api/problem'
import { SignInPage } from '../features/accounts/SignInPage'
import { PersonProvider } from '../reader/person'
import { type Person, sessionQuery } from '../reader/session'
import { lazyNamed } from '../ui/lazyNamed'
import { Page } from '../ui/Page'
import { Shell } from '../ui/Shell'

const SignedInApp = lazyNamed(() => import('./SignedInApp'), 'SignedInApp')

const FirstAccountPage = lazyNamed(() => import('../features/accounts/FirstAccountPage'), 'FirstAccountPage')

const InvitationPage = lazyNamed(() => import('../features/invitation/InvitationPage'), 'InvitationPage')

const JoinPage = lazyNamed(() => import('../features/invitation/JoinPage'), 'JoinPage')

const ForgottenPage = lazyNamed(() => import('../features/accounts/ForgottenPage'), 'ForgottenPage')

const ResetPage = lazyNamed(() => import('../features/accounts/ResetPage'), 'ResetPage')

const LinkPage = lazyNamed(() => import('./LinkPage'), 'LinkPage')

const PostRoomPage = lazyNamed(() => import('../features/post-room/PostRoomPage'), 'PostRoomPage')

const AnswerPage = lazyNamed(() => import('../features/answers/AnswerPage'), 'AnswerPage')

const StopPage = lazyNamed(() => import('../features/post-room/StopPage'), 'StopPage')

const SuitsPage = lazyNamed(() => import('../features/proposals/SuitsPage'), 'SuitsPage')

/** The pages that need no account. */
const pages: readonly [string, ComponentType][] = [
  ['/invitation/:token', InvitationPage],
  ['/join/:token', JoinPage],
  ['/link/:secret', LinkPage],
  ['/answer/:secret', AnswerPage],
  ['/suits/:secret', SuitsPage],
  ['/stop/:token', StopPage],
  ['/forgotten', ForgottenPage],
  ['/reset/:secret', ResetPage],
]

/** Chooses between what is there for everybody and what is there for who is signed in. */
export function App() {
  const session = useQuery(sessionQuery)
  if (session.isError) return <Page title="Mortar cannot be reached">{sentenceOf(session.error)}</Page>
  if (!session.data) return <Shell />

  const { person, demo, needsFirstAccount, now } = session.data
  return (
    <Routes>
      {pages.map(([path, Shown]) => (
        <Route
          key={path}
          path={path}
          element={
            <Suspense fallback={<Shell />}>
              <Shown />
            </Suspense>
          }
        />
      ))}
      {demo && (
        <Route
          path="/post-room"
          element={
            <Suspense fallback={<Shell />}>
              <PostRoomPage />
            </Suspense>
          }
        />
      )}
      <Route
        path="/first-account"
        element={
          needsFirstAccount ? (
            <Suspense fallback={<Shell />}>
              <FirstAccountPage />
            </Suspense>
          ) : (
            <Navigate to="/" replace />
          )
        }
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
      <Suspense fallback={<Shell />}>
        <SignedInApp />
      </Suspense>
    </PersonProvider>
  )
}
