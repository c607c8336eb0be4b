import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { type FormEvent, useState } from 'react'
import { fieldProblem } from '../../api/problem'
import { Button } from '../../ui/Button'
import { CopyField } from '../../ui/CopyField'
import { FormProblem } from '../../ui/FormProblem'
import { Note } from '../../ui/Note'
import { TextField } from '../../ui/TextField'
import { useActs } from '../../undo/acts'
import {
  makeRecoveryCodes,
  newSecondFactorKey,
  secondFactorQuery,
  switchSecondFactorOff,
  switchSecondFactorOn,
} from './secondFactor'

/** A code of an authenticator app beside the password, for those who keep one. */
export function SecondFactorPart() {
  const now = useQuery(secondFactorQuery)
  const [codes, setCodes] = useState<readonly string[]>([])
  return (
    <div className="grid gap-2">
      <h3 className="text-base">A code beside the password</h3>
      {codes.length > 0 && <RecoveryCodes codes={codes} onKept={() => setCodes([])} />}
      {now.data?.isOn && codes.length === 0 && (
        <WhileOn left={now.data.recoveryCodesLeft} onCodes={setCodes} />
      )}
      {now.data && !now.data.isOn && <SwitchOn onCodes={setCodes} />}
    </div>
  )
}

/** Changes how one signs in, and asks everything anew: the sign-in is another one then. */
function useSigningIn<T>(change: () => Promise<T>, sentence: string, onDone: (result: T) => void) {
  const acts = useActs()
  const queries = useQueryClient()
  return useMutation({
    mutationFn: change,
    onSuccess: async (result) => {
      acts.done(sentence)
      onDone(result)
      await queries.invalidateQueries()
    },
  })
}

function SwitchOn({ onCodes }: { onCodes: (codes: readonly string[]) => void }) {
  const [code, setCode] = useState('')
  const [password, setPassword] = useState('')
  const fresh = useMutation({ mutationFn: newSecondFactorKey })
  const on = useSigningIn(
    () => switchSecondFactorOn(fresh.data?.key ?? '', code, password),
    'From now on a code is asked for. Every other device is signed out.',
    (made) => onCodes(made.codes),
  )
  if (!fresh.data)
    return (
      <div className="grid justify-items-start gap-2">
        <Note>
          An authenticator app on your phone shows a code that is asked for after the password. Whoever only
          knows your password does not come in.
        </Note>
        <FormProblem error={fresh.error} fields={[]} />
        <Button disabled={fresh.isPending} onClick={() => fresh.mutate()}>
          Ask for a code as well
        </Button>
      </div>
    )
  const submit = (event: FormEvent) => {
    event.preventDefault()
    on.mutate()
  }
  return (
    <form onSubmit={submit} className="grid grid-cols-[auto_1fr] gap-4 max-sm:grid-cols-1" noValidate>
      <img
        alt="The key, for the camera of the phone"
        src={`data:image/svg+xml,${encodeURIComponent(fresh.data.qr)}`}
        className="size-44 bg-white p-2"
      />
      <div className="grid content-start gap-3">
        <CopyField label="Read the picture with your app, or give it this key" text={fresh.data.key} />
        <TextField
          label="Code that the app shows now"
          value={code}
          onChange={setCode}
          autoComplete="one-time-code"
          problem={fieldProblem(on.error, 'code')}
        />
        <TextField
          label="Password"
          type="password"
          value={password}
          onChange={setPassword}
          autoComplete="current-password"
          problem={fieldProblem(on.error, 'password')}
        />
        <FormProblem error={on.error} fields={['code', 'password']} />
        <div className="flex gap-2">
          <Button type="submit" disabled={on.isPending || code.trim() === '' || password === ''}>
            Switch it on
          </Button>
          <Button look="link" onClick={() => fresh.reset()}>
            Leave it
          </Button>
        </div>
      </div>
    </form>
  )
}

function RecoveryCodes({ codes, onKept }: { codes: readonly string[]; onKept: () => void }) {
  return (
    <div className="grid justify-items-start gap-2 border border-cement-500 bg-surface p-3">
      <p>
        <b>Keep these recovery codes</b> where your phone is not. Each opens your account once when the app is
        lost, and they are shown this once.
      </p>
      <ul aria-label="Recovery codes" className="grid grid-cols-2 gap-x-6 font-mono">
        {codes.map((one) => (
          <li key={one}>{one}</li>
        ))}
      </ul>
      <Button onClick={onKept}>I have kept them</Button>
    </div>
  )
}

function WhileOn({ left, onCodes }: { left: number; onCodes: (codes: readonly string[]) => void }) {
  const [password, setPassword] = useState('')
  const off = useSigningIn(
    () => switchSecondFactorOff(password),
    'The password alone signs in again. Every other device is signed out.',
    () => setPassword(''),
  )
  const renew = useSigningIn(
    () => makeRecoveryCodes(password),
    'The recovery codes from before lead nowhere now.',
    (made) => onCodes(made.codes),
  )
  const error = off.error ?? renew.error
  return (
    <div className="grid justify-items-start gap-3">
      <p>
        It is on. {left === 1 ? 'One recovery code is' : `${left} recovery codes are`} left
        {left < 3 ? '; make new ones before you need them' : ''}.
      </p>
      <div className="w-72 max-w-full">
        <TextField
          label="Password, to change this"
          type="password"
          value={password}
          onChange={setPassword}
          autoComplete="current-password"
          problem={fieldProblem(error, 'password')}
        />
      </div>
      <FormProblem error={error} fields={['password']} />
      <div className="flex flex-wrap gap-2">
        <Button disabled={password === '' || renew.isPending} onClick={() => renew.mutate()}>
          Make new recovery codes
        </Button>
        <Button disabled={password === '' || off.isPending} onClick={() => off.mutate()}>
          Switch it off
        </Button>
      </div>
    </div>
  )
}
