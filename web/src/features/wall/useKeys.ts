import { useEffect, useEffectEvent } from 'react'

/** Keys of the wall; nothing while something is being written. */
export function useKeys(keys: Readonly<Record<string, () => void>>) {
  const press = useEffectEvent((event: KeyboardEvent) => {
    if (event.defaultPrevented || event.ctrlKey || event.metaKey || event.altKey) return
    const writing =
      event.target instanceof Element &&
      event.target.closest('input, textarea, select, [role="menu"], [role="alertdialog"]') !== null
    if (writing && event.key !== 'Escape') return
    const act = keys[event.key.length === 1 ? event.key.toLowerCase() : event.key]
    if (!act) return
    event.preventDefault()
    act()
  })
  useEffect(() => {
    window.addEventListener('keydown', press)
    return () => window.removeEventListener('keydown', press)
  }, [])
}
