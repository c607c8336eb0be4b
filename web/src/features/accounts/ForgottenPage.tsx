import { useMutation } from '@tanstack/react-query'
import { type FormEvent, useState } from 'react'
import { fieldProblem } from '../../api/problem'
import { Button } from '../../ui/Button'
import { FormProblem } from '../../ui/FormProblem'
import { Gate } from '../../ui/Gate'
import { TextField } from '../../ui/TextField'
import { TextLink } from '../../ui/TextLink'
import { forgotPassword } from './passwordQueries'

/** Asks for a link by which a new password is set. */
export function ForgottenPage() {
  const [address, setAddress] = useState('')
  const ask = useMutation({ mutationFn: () => forgotPassword(address.trim()) })
  const submit = (event: FormEvent) => {
    event.preventDefault()
    ask.mutate()
  }
  return (
    <Gate title="A new password">
      {ask.isSuccess ? (
        <p role="status">
          If there is an account with that address, a mail is on its way to it. Its link is good for 30
          minutes, once. Nothing came? Look among unwanted mail, or try another address of yours.
        </p>
      ) : (
        <form onSubmit={submit} className="grid gap-3" noValidate>
          <p className="text-cement-700">
            Type the address you sign in with. A link comes by mail; until you use it your old password stays.
          </p>
          <TextField
            label="Mail address"
            type="email"
            value={address}
            onChange={setAddress}
            autoComplete="username"
            problem={fieldProblem(ask.error, 'address')}
          />
          <FormProblem error={ask.error} fields={['address']} />
          <Button type="submit" look="main" disabled={ask.isPending}>
            Send the link
          </Button>
        </form>
      )}
      <p className="mt-6">
        <TextLink to="/">Back to signing in</TextLink>
      </p>
    </Gate>
  )
}
