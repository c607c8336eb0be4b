import { useMutation } from '@tanstack/react-query'
import { Button } from '../../ui/Button'
import { TextLink } from '../../ui/TextLink'
import { useActs } from '../../undo/acts'
import { askToConfirm } from './addressQueries'

/** An account that was made where a link was opened has no address until its mail is answered. */
export function UnconfirmedNote({ address }: { address: string }) {
  const acts = useActs()
  const again = useMutation({
    mutationFn: () => askToConfirm(address),
    onSuccess: () => acts.done(`A mail is on its way to ${address}.`),
    onError: (error) => acts.failed(error),
  })
  return (
    <p
      role="status"
      className="flex flex-wrap items-baseline gap-x-3 border-b border-cement-300 bg-cement-200 px-4 py-1 text-[13px]"
    >
      <span className="written">
        Is <b>{address}</b> yours? Open the link in the mail that went there: until then nobody invites you by
        it, and a forgotten password is lost.
      </span>
      <Button look="link" disabled={again.isPending} onClick={() => again.mutate()}>
        Send it again
      </Button>
      <TextLink to="/preferences">Another address</TextLink>
    </p>
  )
}
