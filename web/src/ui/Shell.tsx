import { Logo } from './Logo'

/** What stands there while a page comes: index.html begins with the same, so that no moment of it is blank. */
export function Shell() {
  return (
    <div className="shell">
      <Logo />
      Mortar
    </div>
  )
}
