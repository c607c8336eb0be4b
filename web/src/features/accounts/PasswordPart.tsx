import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { type FormEvent, useState } from 'react'
import { fieldProblem } from '../../api/problem'
import { momentText } from '../../reader/dates'
import { Button } from '../../ui/Button'
import { FormProblem } from '../../ui/FormProblem'
import { TextField } from '../../ui/TextField'
import { useActs } from '../../undo/acts'
import { deviceText } from './deviceText'
import { PasskeyList } from './PasskeyList'
import { changePassword, endOtherSignIns, endSignIn, signInsQuery } from './passwordQueries'
import { SecondFactorPart } from './SecondFactorPart'

/** One's password, and where one is signed in. */
export function PasswordPart() {
  return (
    <section aria-label="Signing in" className="mx-auto grid max-w-2xl gap-4 px-6 pb-8 max-sm:px-3">
      <h2 className="text-lg">Signing in</h2>
      <ChangeForm />
      <PasskeyList />
      <SecondFactorPart />
      <SignInList />
    </section>
  )
}

function ChangeForm() {
  const acts = useActs()
  const queries = useQueryClient()
  const [current, setCurrent] = useState('')
  const [password, setPassword] = useState('')
  const change = useMutation({
    mutationFn: () => changePassword(current, password),
    onSuccess: async () => {
      acts.done('Your password is changed. Every other device is signed out.')
      setCurrent('')
      setPassword('')
      // The token that changes are sent with is another one for the new sign-in.
      await queries.invalidateQueries()
    },
  })
  const submit = (event: FormEvent) => {
    event.preventDefault()
    change.mutate()
  }
  return (
    <form onSubmit={submit} className="grid grid-cols-2 items-start gap-3 max-sm:grid-cols-1" noValidate>
      <TextField
        label="Password until now"
        type="password"
        value={current}
        onChange={setCurrent}
        autoComplete="current-password"
        problem={fieldProblem(change.error, 'current')}
      />
      <TextField
        label="New password"
        type="password"
        value={password}
        onChange={setPassword}
        autoComplete="new-password"
        problem={fieldProblem(change.error, 'password')}
      />
      <div className="col-span-full grid justify-items-start gap-2">
        <FormProblem error={change.error} fields={['current', 'password']} />
        <Button type="submit" disabled={change.isPending || current === '' || password === ''}>
          Change the password
        </Button>
      </div>
    </form>
  )
}

function SignInList() {
  const acts = useActs()
  const queries = useQueryClient()
  const signIns = useQuery(signInsQuery)
  const end = useMutation({
    mutationFn: (id: string | null) => (id ? endSignIn(id) : endOtherSignIns()),
    onSuccess: (_, id) => acts.done(id ? 'That device is signed out.' : 'All other devices are signed out.'),
    onError: acts.failed,
    onSettled: () => queries.invalidateQueries({ queryKey: signInsQuery.queryKey }),
  })
  const others = signIns.data?.filter((one) => !one.isThis) ?? []
  return (
    <div className="grid gap-2">
      <h3 className="text-base">Where you are signed in</h3>
      <ul className="divide-y divide-cement-200 border-y border-cement-200 bg-surface">
        {signIns.data?.map((one) => (
          <li key={one.id} className="flex flex-wrap items-baseline gap-3 px-3 py-2">
            <span className="flex-1">
              <span className="written font-bold">{deviceText(one.device)}</span>{' '}
              <span className="text-[12px] text-cement-700">
                {one.isThis ? 'this one, ' : ''}since {momentText(one.startedAt)}, last used{' '}
                {momentText(one.seenAt)}
              </span>
            </span>
            {!one.isThis && (
              <Button look="link" disabled={end.isPending} onClick={() => end.mutate(one.id)}>
                Sign out<span className="sr-only"> {deviceText(one.device)}</span>
              </Button>
            )}
          </li>
        ))}
      </ul>
      {others.length > 1 && (
        <div>
          <Button disabled={end.isPending} onClick={() => end.mutate(null)}>
            Sign out of all others
          </Button>
        </div>
      )}
    </div>
  )
}
