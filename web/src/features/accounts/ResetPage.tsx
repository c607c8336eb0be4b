import { useMutation, useQueryClient } from '@tanstack/react-query'
import { type FormEvent, useState } from 'react'
import { useParams } from 'react-router'
import { fieldProblem } from '../../api/problem'
import { sessionQuery } from '../../reader/session'
import { Button } from '../../ui/Button'
import { FormProblem } from '../../ui/FormProblem'
import { Gate } from '../../ui/Gate'
import { TextField } from '../../ui/TextField'
import { TextLink } from '../../ui/TextLink'
import { resetPassword } from './passwordQueries'

/** Sets a new password by the link in a mail. */
export function ResetPage() {
  const { secret = '' } = useParams()
  const queries = useQueryClient()
  const [password, setPassword] = useState('')
  const reset = useMutation({
    mutationFn: () => resetPassword(secret, password),
    onSuccess: () => queries.invalidateQueries(sessionQuery),
  })
  const submit = (event: FormEvent) => {
    event.preventDefault()
    reset.mutate()
  }
  return (
    <Gate title="A new password">
      {reset.isSuccess ? (
        <p role="status">
          Your password is changed, and every device is signed out.{' '}
          <TextLink to="/">Sign in with the new one</TextLink>
        </p>
      ) : (
        <form onSubmit={submit} className="grid gap-3" noValidate>
          <TextField
            label="New password"
            type="password"
            value={password}
            onChange={setPassword}
            autoComplete="new-password"
            hint="At least 10 characters, such as four words that do not belong together."
            problem={fieldProblem(reset.error, 'password')}
          />
          <FormProblem error={reset.error} fields={['password']} />
          <Button type="submit" look="main" disabled={reset.isPending}>
            Set the password
          </Button>
          <p>
            <TextLink to="/forgotten">Ask for another link</TextLink>
          </p>
        </form>
      )}
    </Gate>
  )
}
