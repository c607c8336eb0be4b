import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useParams } from 'react-router'
import { sentenceOf } from '../../api/problem'
import { Button } from '../../ui/Button'
import { Page } from '../../ui/Page'
import { TextLink } from '../../ui/TextLink'
import { confirmAddress } from './addressQueries'

/** A further address, confirmed by the link in its mail. */
export function ConfirmAddressPage() {
  const { secret = '' } = useParams()
  const queries = useQueryClient()
  const confirm = useMutation({
    mutationFn: () => confirmAddress(secret),
    onSuccess: () => queries.invalidateQueries(),
  })
  return (
    <Page title="A further address">
      {confirm.isSuccess ? (
        <p>
          It is yours. Invitations to it arrive in <TextLink to="/inbox">your inbox</TextLink> from now on.
        </p>
      ) : (
        <>
          <p className="mb-4">
            You asked for this address to lead to your account. Was it you? Then confirm it.
          </p>
          <Button look="main" disabled={confirm.isPending} onClick={() => confirm.mutate()}>
            Confirm the address
          </Button>
        </>
      )}
      {confirm.isError && (
        <p role="alert" className="mt-3 text-clash">
          {sentenceOf(confirm.error)}
        </p>
      )}
    </Page>
  )
}
