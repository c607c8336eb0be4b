import { type FormEvent, useState } from 'react'
import { fieldProblem } from '../../api/problem'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { FormProblem } from '../../ui/FormProblem'
import { TextField } from '../../ui/TextField'
import { useAct } from '../../undo/useAct'
import { type MadeDevice, putDevice } from './deviceQueries'
import { type DeviceStep, deviceSteps } from './deviceSteps'

/** A key for one more device. */
export function NewDeviceForm({ onMade }: { onMade: (made: MadeDevice) => void }) {
  const [name, setName] = useState('')
  const [role, setRole] = useState<DeviceStep>('edit')
  const [error, setError] = useState<unknown>(null)
  const make = useAct({
    run: () => putDevice(crypto.randomUUID(), { name, role }),
    say: () => 'Made the key.',
    isFinal: () => true,
    freshen: ['devices'],
    onDone: (made) => {
      setError(null)
      setName('')
      onMade(made)
    },
    saysItself: true,
  })
  const submit = (event: FormEvent) => {
    event.preventDefault()
    make.mutate(undefined, { onError: setError })
  }
  return (
    <form
      onSubmit={submit}
      className="grid grid-cols-[1fr_1fr_auto] items-end gap-2 max-sm:grid-cols-1"
      noValidate
    >
      <TextField
        label="Which device"
        placeholder="My phone"
        value={name}
        onChange={setName}
        problem={fieldProblem(error, 'name')}
      />
      <Choice
        label="It may"
        value={role}
        onChange={setRole}
        options={deviceSteps}
        problem={fieldProblem(error, 'role')}
      />
      <Button type="submit" disabled={make.isPending}>
        Make a key
      </Button>
      <FormProblem error={error} fields={['name', 'role']} />
    </form>
  )
}
