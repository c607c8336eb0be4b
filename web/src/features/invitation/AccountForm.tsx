import { useMutation } from '@tanstack/react-query'
import { type FormEvent, useState } from 'react'
import { fieldProblem } from '../../api/problem'
import { Button } from '../../ui/Button'
import { FormProblem } from '../../ui/FormProblem'
import { TextField } from '../../ui/TextField'

interface AccountFormProps {
  /** Where a mailed link has shown that it is theirs; they are asked for it otherwise. */
  address: string | null
  /** What others call them, where somebody has said so. */
  name?: string
  make: (account: { name: string; password: string; address: string }) => Promise<unknown>
  onMade: () => Promise<unknown>
}

/** Makes an account. */
export function AccountForm({ address, name: known = '', make, onMade }: AccountFormProps) {
  const [name, setName] = useState(known)
  const [password, setPassword] = useState('')
  const [written, setWritten] = useState('')
  const made = useMutation({
    mutationFn: () => make({ name, password, address: address ?? written.trim() }),
    onSuccess: onMade,
  })
  const submit = (event: FormEvent) => {
    event.preventDefault()
    made.mutate()
  }
  return (
    <form onSubmit={submit} className="grid gap-3" noValidate>
      {address !== null && <p className="text-cement-700">Make an account for {address}.</p>}
      <TextField
        label="Your name, as others know you"
        value={name}
        onChange={setName}
        problem={fieldProblem(made.error, 'name')}
        autoComplete="name"
        required
      />
      {address === null && (
        <TextField
          label="Your mail address"
          type="email"
          value={written}
          onChange={setWritten}
          problem={fieldProblem(made.error, 'address')}
          hint="You sign in with it. A mail asks whether it is yours."
          autoComplete="email"
          required
        />
      )}
      <TextField
        label="A password"
        type="password"
        value={password}
        onChange={setPassword}
        problem={fieldProblem(made.error, 'password')}
        hint="At least 10 characters"
        autoComplete="new-password"
        required
      />
      <FormProblem error={made.error} fields={['name', 'address', 'password']} />
      <Button type="submit" look="main" disabled={made.isPending}>
        Make the account
      </Button>
    </form>
  )
}
