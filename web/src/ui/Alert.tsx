import type { ReactNode } from 'react'

/** What is wrong, read aloud at once. */
export function Alert({ children }: { children: ReactNode }) {
  return (
    <p role="alert" className="text-clash">
      {children}
    </p>
  )
}
