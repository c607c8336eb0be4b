import type { ReactNode } from 'react'

/** One of several things that wait for an answer, in a list. */
export function Card({ children }: { children: ReactNode }) {
  return <li className="grid gap-2 rounded-control border-2 border-ink bg-surface p-4">{children}</li>
}
