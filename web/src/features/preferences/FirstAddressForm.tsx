import { useMutation, useQueryClient } from '@tanstack/react-query'
import { type FormEvent, useState } from 'react'
import { fieldProblem } from '../../api/problem'
import { Button } from '../../ui/Button'
import { FormProblem } from '../../ui/FormProblem'
import { TextField } from '../../ui/TextField'
import { useActs } from '../../undo/acts'
import { makeFirst } from './addressQueries'

interface FirstAddressFormProps {
  address: { id: string; address: string }
  onClose: () => void
}

/** Asks for the password before mail goes to another address: whoever gets it can set another one. */
export function FirstAddressForm({ address, onClose }: FirstAddressFormProps) {
  const queries = useQueryClient()
  const acts = useActs()
  const [password, setPassword] = useState('')
  const change = useMutation({
    mutationFn: () => makeFirst(address.id, password),
    onSuccess: async () => {
      acts.done(`Mail goes to ${address.address} from now on. The address until now was told.`)
      onClose()
      await queries.invalidateQueries()
    },
  })
  const submit = (event: FormEvent) => {
    event.preventDefault()
    change.mutate()
  }
  return (
    <form onSubmit={submit} className="flex w-full flex-wrap items-end gap-3 pb-1" noValidate>
      <div className="w-64 max-w-full">
        <TextField
          label="Your password"
          type="password"
          value={password}
          onChange={setPassword}
          autoComplete="current-password"
          problem={fieldProblem(change.error, 'password')}
          autoFocus
        />
      </div>
      <Button type="submit" disabled={change.isPending || password === ''}>
        Have mail go here
      </Button>
      <Button look="link" onClick={onClose}>
        Leave it
      </Button>
      <FormProblem error={change.error} fields={['password']} />
    </form>
  )
}
