import { useMutation, useQueryClient } from '@tanstack/react-query'
import { type FormEvent, useState } from 'react'
import { fieldProblem } from '../../api/problem'
import { useReader } from '../../reader/person'
import { Button } from '../../ui/Button'
import { FormProblem } from '../../ui/FormProblem'
import { TextField } from '../../ui/TextField'
import { useActs } from '../../undo/acts'
import { rename } from './addressQueries'

/** What others call one. */
export function NamePart() {
  const { person } = useReader()
  const queries = useQueryClient()
  const acts = useActs()
  const [name, setName] = useState(person.name)
  const change = useMutation({
    mutationFn: () => rename(name),
    onSuccess: async () => {
      acts.done(`You are “${name.trim()}” to everybody now.`)
      await queries.invalidateQueries()
    },
  })
  const submit = (event: FormEvent) => {
    event.preventDefault()
    change.mutate()
  }
  return (
    <section aria-label="Your name" className="mx-auto grid max-w-2xl gap-3 px-6 pb-8 max-sm:px-3">
      <h2 className="text-lg">Your name</h2>
      <form onSubmit={submit} className="flex flex-wrap items-end gap-3" noValidate>
        <div className="w-72 max-w-full">
          <TextField
            label="As others know you"
            value={name}
            onChange={setName}
            autoComplete="name"
            problem={fieldProblem(change.error, 'name')}
          />
        </div>
        <Button type="submit" disabled={change.isPending || name.trim() === '' || name === person.name}>
          Change the name
        </Button>
      </form>
      <FormProblem error={change.error} fields={['name']} />
    </section>
  )
}
