import type { ReactNode } from 'react'
import { useTitle } from './useTitle'

/** A page of its own beside the wall: a title and a column that can be read. */
export function Page({ title, children }: { title: string; children: ReactNode }) {
  useTitle(title)
  return (
    <main className="relative min-h-0 flex-1 overflow-y-auto bg-cement-50">
      <div className="mx-auto max-w-3xl px-5 py-8">
        <h1 className="mb-5 text-2xl">{title}</h1>
        {children}
      </div>
    </main>
  )
}
