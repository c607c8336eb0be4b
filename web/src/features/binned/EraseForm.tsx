import { type FormEvent, useState } from 'react'
import { fieldProblem } from '../../api/problem'
import { Button } from '../../ui/Button'
import { TextField } from '../../ui/TextField'
import { useAct } from '../../undo/useAct'
import { type BinEntry, eraseForGood } from './binQueries'
import { headOf } from './binWords'

/** Has something go for good, which takes its name as the answer. */
export function EraseForm({ entry, name, onClose }: { entry: BinEntry; name: string; onClose: () => void }) {
  const [typed, setTyped] = useState('')
  const erase = useAct({
    run: (text: string) => eraseForGood(entry.place, text),
    say: () => `${headOf(entry)} has gone for good.`,
    isFinal: () => true,
    freshen: 'all',
  })
  const submit = (event: FormEvent) => {
    event.preventDefault()
    erase.mutate(typed)
  }
  return (
    <form onSubmit={submit} className="mt-3 grid gap-3 border-2 border-clash p-3" noValidate>
      <h3 className="text-base">Delete for good?</h3>
      <p className="text-[13px] text-cement-700">
        Nobody can bring it back after that, and what was done to it is forgotten with it.
      </p>
      <TextField
        label={`Type this: ${name}`}
        value={typed}
        onChange={setTyped}
        problem={fieldProblem(erase.error, 'name')}
        autoComplete="off"
        autoFocus
      />
      <div className="flex gap-2">
        <Button type="submit" look="danger" disabled={typed.trim() === '' || erase.isPending}>
          Delete for good
        </Button>
        <Button onClick={onClose}>Keep it</Button>
      </div>
    </form>
  )
}
