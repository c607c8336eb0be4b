import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { type FormEvent, useState } from 'react'
import { sentenceOf } from '../../api/problem'
import { demoPeopleQuery, sessionQuery, signIn, signInAsDemoPerson } from '../../reader/session'
import { Alert } from '../../ui/Alert'
import { Button } from '../../ui/Button'
import { Gate } from '../../ui/Gate'
import { TextField } from '../../ui/TextField'
import { TextLink } from '../../ui/TextLink'
import { canHavePasskeys, signInWithPasskey } from './passkeys'
import { isCodeAsked, signInWithCode } from './secondFactor'

/** Signing in; at the demo with one click. */
export function SignInPage({ demo }: { demo: boolean }) {
  return (
    <Gate title={demo ? 'Kiln Street Studio is open' : 'Sign in'}>
      {demo && <DemoPeople />}
      {demo && <h2 className="mt-8 mb-3 text-base">Or with an address and a password</h2>}
      <SignInForm />
      {demo && (
        <p className="mt-6 text-cement-700">
          What Mortar mails arrives in the <TextLink to="/post-room">post room</TextLink>.
        </p>
      )}
    </Gate>
  )
}

function DemoPeople() {
  const people = useQuery(demoPeopleQuery)
  const queries = useQueryClient()
  const enter = useMutation({
    mutationFn: signInAsDemoPerson,
    onSuccess: () => queries.invalidateQueries(sessionQuery),
  })
  return (
    <>
      <p className="mb-3 text-cement-700">
        This is the demo: the people are made up, and one click makes you one of them.
      </p>
      <ul className="grid gap-1.5">
        {(people.data ?? []).map((person) => (
          <li key={person.personId}>
            <button
              type="button"
              disabled={enter.isPending}
              onClick={() => enter.mutate(person.personId)}
              className="grid w-full grid-cols-[8.5rem_1fr] items-baseline gap-2 rounded-control border border-cement-300 bg-surface px-3 py-2 text-left hover:border-ink"
            >
              <span className="font-bold">{person.name}</span>
              <span className="text-cement-700">{person.about}</span>
            </button>
          </li>
        ))}
      </ul>
      {enter.isError && <Problem error={enter.error} />}
    </>
  )
}

/** The form by itself, also under an invitation. */
export function SignInForm({ address: known = '', onDone }: { address?: string; onDone?: () => void }) {
  const queries = useQueryClient()
  const onSuccess = () => (onDone ? onDone() : queries.invalidateQueries())
  const [address, setAddress] = useState(known)
  const [password, setPassword] = useState('')
  const enter = useMutation({
    mutationFn: () => signIn(address, password),
    onSuccess,
  })
  const byPasskey = useMutation({
    mutationFn: signInWithPasskey,
    onSuccess,
  })
  const submit = (event: FormEvent) => {
    event.preventDefault()
    enter.mutate()
  }
  if (isCodeAsked(enter.error))
    return <CodeForm sentence={sentenceOf(enter.error)} onBack={() => enter.reset()} onSuccess={onSuccess} />
  return (
    <form onSubmit={submit} className="grid gap-3">
      <TextField
        label="Mail address"
        type="email"
        value={address}
        onChange={setAddress}
        autoComplete="username"
        required
      />
      <TextField
        label="Password"
        type="password"
        value={password}
        onChange={setPassword}
        autoComplete="current-password"
        autoFocus={onDone !== undefined}
        required
      />
      {enter.isError && <Problem error={enter.error} />}
      <Button type="submit" look="main" disabled={enter.isPending}>
        Sign in
      </Button>
      {canHavePasskeys() && (
        <Button disabled={byPasskey.isPending} onClick={() => byPasskey.mutate()}>
          Sign in with a passkey
        </Button>
      )}
      {byPasskey.isError && <Problem error={byPasskey.error} />}
      <p>
        <TextLink to="/forgotten">I forgot my password</TextLink>
      </p>
    </form>
  )
}

/** The code after the password. */
function CodeForm({
  sentence,
  onBack,
  onSuccess,
}: {
  sentence: string
  onBack: () => void
  onSuccess: () => void
}) {
  const [code, setCode] = useState('')
  const enter = useMutation({
    mutationFn: () => signInWithCode(code),
    onSuccess,
    onError: () => setCode(''),
  })
  const submit = (event: FormEvent) => {
    event.preventDefault()
    enter.mutate()
  }
  return (
    <form onSubmit={submit} className="grid gap-3">
      <p>{sentence}</p>
      <TextField
        label="Code"
        value={code}
        onChange={setCode}
        autoComplete="one-time-code"
        autoFocus
        required
      />
      {enter.isError && <Problem error={enter.error} />}
      <Button type="submit" look="main" disabled={enter.isPending || code.trim() === ''}>
        Sign in
      </Button>
      <Button look="link" onClick={onBack}>
        Back to the password
      </Button>
    </form>
  )
}

function Problem({ error }: { error: unknown }) {
  return <Alert>{sentenceOf(error)}</Alert>
}
