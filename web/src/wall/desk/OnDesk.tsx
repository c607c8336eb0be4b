import { type ReactNode, Suspense } from 'react'
import { Desk } from '../../ui/Desk'

/** Something on the desk that may still be loading: until it is there, the desk stands with its title where it has one. */
export function OnDesk({
  title,
  half,
  onClose,
  children,
}: {
  title?: string
  half?: boolean
  onClose: () => void
  children: ReactNode
}) {
  return (
    <Suspense
      fallback={
        title && (
          <Desk title={title} onClose={onClose} half={half}>
            {null}
          </Desk>
        )
      }
    >
      {children}
    </Suspense>
  )
}

/** What was on the desk is not there any more. */
export function NotThere({ onClose }: { onClose: () => void }) {
  return (
    <Desk title="Not there" onClose={onClose}>
      <p>It is no longer shared with you, or was deleted. Ask its coordinator if you expected it.</p>
    </Desk>
  )
}
