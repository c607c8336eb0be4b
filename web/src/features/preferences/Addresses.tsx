import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { type FormEvent, useState } from 'react'
import { fieldProblem } from '../../api/problem'
import { useReader } from '../../reader/person'
import { Button } from '../../ui/Button'
import { FormProblem } from '../../ui/FormProblem'
import { Note } from '../../ui/Note'
import { TextField } from '../../ui/TextField'
import { useActs } from '../../undo/acts'
import { addressesQuery, askToConfirm, takeOutAddress } from './addressQueries'
import { FirstAddressForm } from './FirstAddressForm'

/** One's own addresses: an invitation to any of them arrives, and any of them signs in. */
export function Addresses() {
  const { person } = useReader()
  const queries = useQueryClient()
  const acts = useActs()
  const addresses = useQuery(addressesQuery)
  const [written, setWritten] = useState('')
  const [making, setMaking] = useState<string | null>(null)
  const settled = () => queries.invalidateQueries({ queryKey: addressesQuery.queryKey })
  const ask = useMutation({
    mutationFn: (address: string) => askToConfirm(address),
    onSuccess: (_, address) => {
      acts.done(`A mail is on its way to ${address}. Open its link to confirm the address.`)
      setWritten('')
    },
    onSettled: settled,
  })
  const takeOut = useMutation({
    mutationFn: ({ id }: { id: string; address: string }) => takeOutAddress(id),
    onSuccess: (_, { address }) => acts.done(`${address} is no longer one of yours.`),
    onError: (error) => acts.failed(error),
    onSettled: settled,
  })
  const submit = (event: FormEvent) => {
    event.preventDefault()
    ask.mutate(written.trim())
  }
  return (
    <section aria-label="Addresses" className="mx-auto grid max-w-2xl gap-3 px-6 pb-8 max-sm:px-3">
      <h2 className="text-lg">Mail addresses</h2>
      <ul className="divide-y divide-cement-200 border-y border-cement-200 bg-surface">
        {person.address && (
          <li className="px-3 py-2">
            <span className="written font-bold">{person.address}</span>{' '}
            <span className="text-[12px] text-cement-700">mail goes here</span>
          </li>
        )}
        {addresses.data?.map((one) => (
          <li key={one.id} className="flex flex-wrap items-baseline gap-3 px-3 py-2">
            <span className="written flex-1 font-bold">{one.address}</span>
            {!one.isConfirmed && (
              <>
                <span className="text-[12px] text-cement-700">waits to be confirmed by its mail</span>
                <Button look="link" onClick={() => ask.mutate(one.address)}>
                  Send again
                </Button>
              </>
            )}
            {one.isConfirmed && making !== one.id && (
              <Button look="link" onClick={() => setMaking(one.id)}>
                Mail to this one<span className="sr-only">: {one.address}</span>
              </Button>
            )}
            <Button look="link" onClick={() => takeOut.mutate(one)}>
              Take out<span className="sr-only"> {one.address}</span>
            </Button>
            {making === one.id && <FirstAddressForm address={one} onClose={() => setMaking(null)} />}
          </li>
        ))}
      </ul>
      <form onSubmit={submit} className="flex flex-wrap items-end gap-3" noValidate>
        <div className="w-72 max-w-full">
          <TextField
            label="A further address"
            type="email"
            value={written}
            onChange={setWritten}
            problem={fieldProblem(ask.error, 'address')}
            placeholder="name@example.org"
          />
        </div>
        <Button type="submit" disabled={ask.isPending || written.trim() === ''}>
          Send a mail to confirm it
        </Button>
      </form>
      <FormProblem error={ask.error} fields={['address']} />
      <Note>
        An invitation to any confirmed address arrives in your inbox here, and you can sign in with any of
        them.
      </Note>
    </section>
  )
}
