import type { ReactNode } from 'react'

/** A small sentence that explains what stands beside it. */
export function Note({ children }: { children: ReactNode }) {
  return <p className="text-[12px] text-cement-700">{children}</p>
}
