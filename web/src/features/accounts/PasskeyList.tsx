import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { type FormEvent, useState } from 'react'
import { fieldProblem } from '../../api/problem'
import { momentText } from '../../reader/dates'
import { Button } from '../../ui/Button'
import { FormProblem } from '../../ui/FormProblem'
import { Note } from '../../ui/Note'
import { TextField } from '../../ui/TextField'
import { useActs } from '../../undo/acts'
import { addPasskey, canHavePasskeys, passkeysQuery, renamePasskey, takeOutPasskey } from './passkeys'

/** The passkeys that sign in to one's account: added with the password, named, taken out. */
export function PasskeyList() {
  const acts = useActs()
  const queries = useQueryClient()
  const passkeys = useQuery(passkeysQuery)
  const [naming, setNaming] = useState<{ id: string; name: string } | null>(null)
  const change = useMutation({
    mutationFn: ({ act }: { act: () => Promise<unknown>; sentence: string }) => act(),
    onSuccess: (_, { sentence }) => {
      acts.done(sentence)
      setNaming(null)
    },
    onError: acts.failed,
    onSettled: () => queries.invalidateQueries({ queryKey: passkeysQuery.queryKey }),
  })
  return (
    <div className="grid gap-2">
      <h3 className="text-base">Passkeys</h3>
      {(passkeys.data?.length ?? 0) > 0 && (
        <ul
          aria-label="Passkeys"
          className="divide-y divide-cement-200 border-y border-cement-200 bg-surface"
        >
          {passkeys.data?.map((one) => (
            <li key={one.id} className="flex flex-wrap items-end gap-3 px-3 py-2">
              {naming?.id === one.id ? (
                <form
                  className="flex flex-1 flex-wrap items-end gap-3"
                  onSubmit={(event) => {
                    event.preventDefault()
                    change.mutate({
                      act: () => renamePasskey(one.id, naming.name),
                      sentence: `It is “${naming.name.trim()}” now.`,
                    })
                  }}
                >
                  <div className="w-56 max-w-full">
                    <TextField
                      label="Name of the passkey"
                      value={naming.name}
                      onChange={(name) => setNaming({ id: one.id, name })}
                      problem={fieldProblem(change.error, 'name')}
                      autoFocus
                    />
                  </div>
                  <Button type="submit" disabled={change.isPending || naming.name.trim() === ''}>
                    Name it so
                  </Button>
                </form>
              ) : (
                <>
                  <span className="flex-1">
                    <span className="written font-bold">{one.name}</span>{' '}
                    <span className="text-[12px] text-cement-700">since {momentText(one.createdAt)}</span>
                  </span>
                  <Button look="link" onClick={() => setNaming({ id: one.id, name: one.name })}>
                    Rename<span className="sr-only"> {one.name}</span>
                  </Button>
                </>
              )}
              <Button
                look="link"
                disabled={change.isPending}
                onClick={() =>
                  change.mutate({
                    act: () => takeOutPasskey(one.id),
                    sentence: `“${one.name}” does not sign in any more.`,
                  })
                }
              >
                Take out<span className="sr-only"> {one.name}</span>
              </Button>
            </li>
          ))}
        </ul>
      )}
      {canHavePasskeys() ? <AddForm /> : <Note>This browser does not know passkeys.</Note>}
    </div>
  )
}

function AddForm() {
  const acts = useActs()
  const queries = useQueryClient()
  const [name, setName] = useState('')
  const [password, setPassword] = useState('')
  const add = useMutation({
    mutationFn: () => addPasskey(name, password),
    onSuccess: () => {
      acts.done(`“${name.trim()}” signs in to your account from now on.`)
      setName('')
      setPassword('')
    },
    onSettled: () => queries.invalidateQueries({ queryKey: passkeysQuery.queryKey }),
  })
  const submit = (event: FormEvent) => {
    event.preventDefault()
    add.mutate()
  }
  return (
    <form onSubmit={submit} className="grid grid-cols-2 items-start gap-3 max-sm:grid-cols-1" noValidate>
      <TextField
        label="Name of a new passkey"
        value={name}
        onChange={setName}
        placeholder="phone"
        problem={fieldProblem(add.error, 'name')}
      />
      <TextField
        label="Your password"
        type="password"
        value={password}
        onChange={setPassword}
        autoComplete="current-password"
        problem={fieldProblem(add.error, 'password')}
      />
      <div className="col-span-full grid justify-items-start gap-2">
        <FormProblem error={add.error} fields={['name', 'password']} />
        <Button type="submit" disabled={add.isPending || name.trim() === '' || password === ''}>
          Add a passkey of this device
        </Button>
        <Note>With a passkey you sign in by the finger, face or PIN of your device, without a password.</Note>
      </div>
    </form>
  )
}
