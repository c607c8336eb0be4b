import { useMutation } from '@tanstack/react-query'
import { type FormEvent, useState } from 'react'
import { fieldProblem } from '../../api/problem'
import { Button } from '../../ui/Button'
import { FormProblem } from '../../ui/FormProblem'
import { TextField } from '../../ui/TextField'
import { lookAtWeb, type WebLook } from './webCalendarQueries'

interface LookAtWebProps {
  onSeen: (address: string, look: WebLook) => void
}

/** The address of a calendar on the web, which is looked at before anything is made of it. */
export function LookAtWeb({ onSeen }: LookAtWebProps) {
  const [address, setAddress] = useState('')
  const look = useMutation({
    mutationFn: () => lookAtWeb(address),
    onSuccess: (seen) => onSeen(address, seen),
  })
  const submit = (event: FormEvent) => {
    event.preventDefault()
    look.mutate()
  }
  return (
    <form onSubmit={submit} className="grid gap-3" noValidate>
      <TextField
        label="Its address on the web"
        hint="As a school, a league or a council gives it out: it begins with https, http or webcal, and often ends in .ics."
        value={address}
        onChange={setAddress}
        problem={fieldProblem(look.error, 'address')}
        autoComplete="off"
        autoFocus
      />
      <FormProblem error={look.error} fields={['address']} />
      <Button type="submit" look="main" wide disabled={address.trim() === '' || look.isPending}>
        {look.isPending ? 'Looking at it…' : 'Look at it'}
      </Button>
    </form>
  )
}
