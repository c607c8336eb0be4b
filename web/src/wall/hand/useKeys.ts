import { useEffect, useEffectEvent } from 'react'

/** Keys of the wall; nothing while something is being written, and none that `rests` at that moment. */
export function useKeys(keys: Readonly<Record<string, () => void>>, rests: (key: string) => boolean) {
  const press = useEffectEvent((event: KeyboardEvent) => {
    const isHeld = event.ctrlKey || event.metaKey
    if (event.defaultPrevented || (isHeld && event.key !== 'p')) return
    const writing =
      event.target instanceof Element &&
      event.target.closest('input, textarea, select, [role="menu"], [role="alertdialog"]') !== null
    if (writing && event.key !== 'Escape' && !isHeld) return
    const name = event.key.length === 1 ? event.key.toLowerCase() : event.key
    const key = isHeld ? `Ctrl+${name}` : event.altKey ? `Alt+${event.code.replace('Digit', '')}` : name
    const act = keys[key]
    if (!act || rests(key)) return
    event.preventDefault()
    act()
  })
  useEffect(() => {
    window.addEventListener('keydown', press)
    return () => window.removeEventListener('keydown', press)
  }, [])
}
