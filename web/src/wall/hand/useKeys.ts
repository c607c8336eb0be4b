import { useEffect, useEffectEvent } from 'react'

/** Keys of the wall; nothing while something is being written. */
export function useKeys(keys: Readonly<Record<string, () => void>>) {
  const press = useEffectEvent((event: KeyboardEvent) => {
    if (event.defaultPrevented || event.ctrlKey || event.metaKey) return
    const writing =
      event.target instanceof Element &&
      event.target.closest('input, textarea, select, [role="menu"], [role="alertdialog"]') !== null
    if (writing && event.key !== 'Escape') return
    const name = event.key.length === 1 ? event.key.toLowerCase() : event.key
    const act = keys[event.altKey ? `Alt+${event.code.replace('Digit', '')}` : name]
    if (!act) return
    event.preventDefault()
    act()
  })
  useEffect(() => {
    window.addEventListener('keydown', press)
    return () => window.removeEventListener('keydown', press)
  }, [])
}
