import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import type { Schema } from '../api/client'
import { sentenceOf } from '../api/problem'
import { SignInForm } from '../features/accounts/SignInPage'
import { roleName } from '../model/ladder'
import { takeByLink } from '../model/linkQueries'
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
  const [signingIn, setSigningIn] = useState(false)
  const take = useMutation({
    mutationFn: () => takeByLink(secret),
    onSuccess: async () => {
      await queries.invalidateQueries()
      navigate('/week')
    },
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
      ) : signingIn ? (
        <SignInForm address="" />
      ) : (
        <div>
          <Button onClick={() => setSigningIn(true)}>Sign in to put it on your wall</Button>
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
