import type { ReactNode } from 'react'
import { Link, type LinkProps } from 'react-router'

/** A way to another page, in a sentence. */
export function TextLink({ to, children, ...rest }: Omit<LinkProps, 'className'> & { children: ReactNode }) {
  return (
    <Link to={to} className="underline underline-offset-2" {...rest}>
      {children}
    </Link>
  )
}
