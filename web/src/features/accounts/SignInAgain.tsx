import { useQueryClient } from '@tanstack/react-query'
import { Dialog } from 'radix-ui'
import { useEffect, useState } from 'react'
import { api, keepAntiforgeryToken, unwrap } from '../../api/client'
import { whenSignedOut } from '../../api/signedOut'
import { useReader } from '../../reader/person'
import { sessionQuery } from '../../reader/session'
import { SignInForm } from './SignInPage'

/** How long the renewal of a sign-in takes at most until its answer is there. */
const renewalMs = 1_500

/** Whether the browser is signed in as them; whoever is somebody else by now begins with a page of their own, and sends nothing of this one. */
async function isSignedInAs(personId: string): Promise<boolean> {
  const session = await unwrap(api.GET('/api/session'))
  if (session.person && session.person.id !== personId) {
    window.location.assign('/')
    return new Promise(() => {})
  }
  keepAntiforgeryToken(session.antiforgeryToken)
  return session.person !== null
}

/**
 * Where a sign-in ended while a page was open, it is asked for right there: nothing of the page goes, and what waited for it
 * goes on by itself. Whoever is somebody else begins with a page of their own.
 */
export function SignInAgain() {
  const { person } = useReader()
  const { id } = person
  const queries = useQueryClient()
  const [settle, setSettle] = useState<{ run: (isIn: boolean) => void } | null>(null)
  useEffect(
    () =>
      whenSignedOut(async () => {
        // Asked past what is kept, since the page stays as it is; the token for signing in is told with it.
        if (await isSignedInAs(id)) return true
        // It may be being renewed at this moment, as when a password is changed: the answer to that brings the new one.
        await new Promise((run) => setTimeout(run, renewalMs))
        return (await isSignedInAs(id)) || new Promise<boolean>((run) => setSettle({ run }))
      }),
    [id],
  )
  // The page goes: who waits is told that nobody signed in.
  useEffect(() => () => settle?.run(false), [settle])
  if (!settle) return null

  const answer = (isIn: boolean) => {
    settle.run(isIn)
    setSettle(null)
  }
  const isIn = async () => {
    if (!(await isSignedInAs(id))) return
    await queries.invalidateQueries(sessionQuery)
    answer(true)
  }
  return (
    <Dialog.Root open onOpenChange={(open) => !open && answer(false)}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-50 bg-cement-900/40" />
        <Dialog.Content className="fixed top-1/4 left-1/2 z-50 w-[26rem] max-w-[calc(100vw-2rem)] -translate-x-1/2 rounded-control bg-surface p-5 shadow-xl">
          <Dialog.Title className="text-lg">Sign in to go on</Dialog.Title>
          <Dialog.Description className="written mt-2 mb-4 text-cement-700">
            Your sign-in as {person.name} has ended. What you see and what you wrote stays; it goes on where
            you are.
          </Dialog.Description>
          <SignInForm address={person.address ?? ''} onDone={() => void isIn()} />
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  )
}
