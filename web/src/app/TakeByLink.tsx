import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import type { Schema } from '../api/client'
import { sentenceOf } from '../api/problem'
import { SignInForm } from '../features/accounts/SignInPage'
import { AccountForm } from '../features/invitation/AccountForm'
import { roleName } from '../model/ladder'
import { makeAccountAtLink, takeByLink } from '../model/linkQueries'
import { browserZone } from '../reader/session'
import { Alert } from '../ui/Alert'
import { Button } from '../ui/Button'

type Link = Schema['LinkWallBody']

/** Putting the calendar on one's own wall, which takes a name. */
export function TakeByLink({
  secret,
  link,
  me,
}: {
  secret: string
  link: Link
  me: Schema['SessionPersonBody'] | null
}) {
  const queries = useQueryClient()
  const navigate = useNavigate()
  const [way, setWay] = useState<'new' | 'known' | null>(null)
  const land = async () => {
    await queries.invalidateQueries()
    navigate('/week')
  }
  const take = useMutation({
    mutationFn: () => takeByLink(secret),
    onSuccess: land,
  })
  if (link.isHere)
    return (
      <p className="mt-4">
        <Button look="link" onClick={() => navigate('/week')}>
          It is on your wall already
        </Button>
      </p>
    )
  if (!link.hasUsesLeft)
    return (
      <p className="mt-4 text-cement-700">
        As many people as this link is for have put it on their walls. It can still be read here.
      </p>
    )
  return (
    <div className="mt-4 grid max-w-md gap-2 print:hidden">
      {me ? (
        <div>
          <Button look="main" disabled={take.isPending} onClick={() => take.mutate()}>
            Put it on my wall
          </Button>
        </div>
      ) : way === 'known' ? (
        <SignInForm address="" />
      ) : way === 'new' ? (
        <AccountForm
          address={null}
          make={(body) => makeAccountAtLink(secret, { ...body, zone: browserZone() })}
          onMade={land}
        />
      ) : (
        <div className="flex flex-wrap gap-2">
          {link.makesAccounts && (
            <Button look="main" onClick={() => setWay('new')}>
              Make an account and put it on your wall
            </Button>
          )}
          <Button onClick={() => setWay('known')}>
            {link.makesAccounts ? 'Sign in' : 'Sign in to put it on your wall'}
          </Button>
        </div>
      )}
      {!me && way !== null && (
        <div>
          <Button look="link" onClick={() => setWay(null)}>
            Back
          </Button>
        </div>
      )}
      {link.taken && link.taken !== link.role && (
        <p className="written text-[12px] text-cement-700">
          There you have the step {roleName(link.taken)}: {link.sentence}
        </p>
      )}
      {take.isError && <Alert>{sentenceOf(take.error)}</Alert>}
    </div>
  )
}
