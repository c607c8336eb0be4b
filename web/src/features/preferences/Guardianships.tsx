import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import type { Schema } from '../../api/client'
import { endGuardianship, guardianshipsQuery } from '../../model/membershipQueries'
import { Button } from '../../ui/Button'
import { useAct } from '../../undo/useAct'

/**
 * Who sees and answers for oneself, and for whom one does; each side can end it, and is asked once more, for only the
 * group's coordinators can begin it anew. Nothing where there is none.
 */
export function Guardianships() {
  const all = useQuery(guardianshipsQuery)
  const [ending, setEnding] = useState<string | null>(null)
  const end = useAct({
    run: (one: Schema['MembershipsGuardianshipBody'], set) => endGuardianship(one.id, set),
    say: (_, one) => `Ended: ${sentenceOfEnd(one)}.`,
    isFinal: () => true,
    freshen: ['shelf'],
  })
  if (!all.data?.length) return null
  return (
    <section aria-label="Guardians" className="mx-auto grid max-w-2xl gap-3 px-6 pb-8 max-sm:px-3">
      <h2 className="text-lg">Seeing and answering for others</h2>
      <ul className="divide-y divide-cement-200 border-y border-cement-200 bg-surface">
        {all.data.map((one) => (
          <li key={one.id} className="flex flex-wrap items-baseline gap-3 px-3 py-2">
            <span className="written min-w-48 flex-1">
              {one.ward === null ? (
                <>
                  <b>{one.guardian}</b> sees and answers for you
                </>
              ) : (
                <>
                  You see and answer for <b>{one.ward}</b>
                </>
              )}{' '}
              in “{one.groupName}”
              {ending === one.id && (
                <span className="block text-[12px] text-cement-700">
                  Only its coordinators can begin it anew.
                </span>
              )}
            </span>
            {ending === one.id ? (
              <span className="flex gap-3 whitespace-nowrap">
                <Button look="danger" disabled={end.isPending} onClick={() => end.mutate(one)}>
                  End it
                </Button>
                <Button onClick={() => setEnding(null)}>Keep it</Button>
              </span>
            ) : (
              <Button look="link" onClick={() => setEnding(one.id)}>
                End this
                <span className="sr-only">: {sentenceOfEnd(one)}</span>
              </Button>
            )}
          </li>
        ))}
      </ul>
    </section>
  )
}

const sentenceOfEnd = (one: Schema['MembershipsGuardianshipBody']) =>
  one.ward === null
    ? `${one.guardian} does not see and answer for you in “${one.groupName}” any more`
    : `you do not see and answer for ${one.ward} in “${one.groupName}” any more`
