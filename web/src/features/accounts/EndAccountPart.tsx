import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { type FormEvent, useState } from 'react'
import { fieldProblem } from '../../api/problem'
import { Button } from '../../ui/Button'
import { Check } from '../../ui/Check'
import { FormProblem } from '../../ui/FormProblem'
import { Note } from '../../ui/Note'
import { TextField } from '../../ui/TextField'
import { TextLink } from '../../ui/TextLink'
import { accountEndingQuery, deleteAccount } from './passwordQueries'

/** Deletes one's account: says what becomes of what, what is handed on first, and asks for the password once more. */
export function EndAccountPart() {
  const [isAsked, setAsked] = useState(false)
  return (
    <section aria-label="Delete your account" className="mx-auto grid max-w-2xl gap-3 px-6 pb-10 max-sm:px-3">
      <h2 className="text-lg">Delete your account</h2>
      <Note>
        Before you go, take all that is yours along: <TextLink to="/spreadsheet">everything at once</TextLink>
        .
      </Note>
      {isAsked ? (
        <EndForm onClose={() => setAsked(false)} />
      ) : (
        <div>
          <Button look="danger" onClick={() => setAsked(true)}>
            Delete my account
          </Button>
        </div>
      )}
    </section>
  )
}

function EndForm({ onClose }: { onClose: () => void }) {
  const queries = useQueryClient()
  const ending = useQuery(accountEndingQuery).data
  const [password, setPassword] = useState('')
  const [keepsName, setKeepsName] = useState(false)
  const end = useMutation({
    mutationFn: () => deleteAccount(password, keepsName),
    onSuccess: () => {
      queries.clear()
      window.location.assign('/')
    },
  })
  const submit = (event: FormEvent) => {
    event.preventDefault()
    end.mutate()
  }
  if (!ending) return null
  if (ending.toHandOn.length > 0)
    return (
      <div className="grid gap-3 border-2 border-clash p-3">
        <h3 className="text-base">Somebody else has to keep this first</h3>
        <ul className="written list-disc pl-5">
          {ending.toHandOn.map((one) => (
            <li key={one}>{one}</li>
          ))}
        </ul>
        <p className="text-[13px] text-cement-700">
          Make somebody a coordinator of each: of a group among its people, of a calendar in its access. What
          nobody needs any more goes to the bin.
        </p>
        <div>
          <Button onClick={onClose}>Close</Button>
        </div>
      </div>
    )
  return (
    <form onSubmit={submit} className="grid gap-3 border-2 border-clash p-3" noValidate>
      <h3 className="text-base">Delete it for good?</h3>
      <ul className="written list-disc pl-5">
        <li>
          Your addresses, password, passkeys, preferences, feeds and access are deleted; you are signed out
          everywhere.
        </li>
        {ending.leaves.length > 0 && <li>You leave {ending.leaves.join(', ')}.</li>}
        {ending.groups.length > 0 && (
          <li>Nobody else is in {ending.groups.join(', ')}: that goes to the bin.</li>
        )}
        {ending.boards > 0 && (
          <li>
            {ending.boards === 1 ? 'The noticeboard' : `The ${ending.boards} noticeboards`} that you keep open{' '}
            {ending.boards === 1 ? 'is' : 'are'} paused, until somebody who coordinates all that is on{' '}
            {ending.boards === 1 ? 'it' : 'one'} opens it again.
          </li>
        )}
        {ending.own.length > 0 && <li>{ending.own.join(', ')}, of your own time, goes to the bin.</li>}
        <li>
          {ending.events === 1 ? 'One event' : `${ending.events} events`} that you put into shared calendars
          stay there. Where your name stood, “Somebody who left” stands.
        </li>
      </ul>
      <Check label="Leave my name on what I wrote" checked={keepsName} onChange={setKeepsName} />
      <div className="w-72 max-w-full">
        <TextField
          label="Your password, to delete the account"
          type="password"
          value={password}
          onChange={setPassword}
          problem={fieldProblem(end.error, 'password')}
          autoComplete="current-password"
        />
      </div>
      <FormProblem error={end.error} fields={['password']} />
      <div className="flex gap-2">
        <Button type="submit" look="danger" disabled={password === '' || end.isPending}>
          Delete my account for good
        </Button>
        <Button onClick={onClose}>Keep it</Button>
      </div>
    </form>
  )
}
