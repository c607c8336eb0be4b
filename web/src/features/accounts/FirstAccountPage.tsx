import { useMutation, useQueryClient } from '@tanstack/react-query'
import { type FormEvent, useState } from 'react'
import { fieldProblem } from '../../api/problem'
import { browserZone, makeFirstAccount } from '../../reader/session'
import { Button } from '../../ui/Button'
import { FormProblem } from '../../ui/FormProblem'
import { Gate } from '../../ui/Gate'
import { TextField } from '../../ui/TextField'

/** The first account of a new Mortar, made with the code on the console. */
export function FirstAccountPage() {
  const queries = useQueryClient()
  const [body, setBody] = useState({ code: '', name: '', address: '', password: '', zone: browserZone() })
  const make = useMutation({
    mutationFn: () => makeFirstAccount(body),
    onSuccess: () => queries.invalidateQueries(),
  })
  const set = (part: keyof typeof body) => (value: string) => setBody({ ...body, [part]: value })
  const submit = (event: FormEvent) => {
    event.preventDefault()
    make.mutate()
  }
  const problem = (path: string) => fieldProblem(make.error, path)
  return (
    <Gate title="Make the first account">
      <p className="mb-4 text-cement-700">
        Whoever started Mortar finds a code on its console. With it you make the first account; everybody else
        comes by invitation.
      </p>
      <form onSubmit={submit} className="grid gap-3">
        <TextField
          label="Code from the console"
          value={body.code}
          onChange={set('code')}
          problem={problem('code')}
          required
        />
        <TextField
          label="Your name"
          value={body.name}
          onChange={set('name')}
          problem={problem('name')}
          autoComplete="name"
          required
        />
        <TextField
          label="Your mail address"
          type="email"
          value={body.address}
          onChange={set('address')}
          problem={problem('address')}
          autoComplete="username"
          required
        />
        <TextField
          label="A password"
          type="password"
          value={body.password}
          onChange={set('password')}
          problem={problem('password')}
          hint="At least 10 characters"
          autoComplete="new-password"
          required
        />
        <FormProblem error={make.error} fields={['address', 'code', 'name', 'password']} />
        <Button type="submit" look="main" disabled={make.isPending}>
          Make the account
        </Button>
      </form>
    </Gate>
  )
}
