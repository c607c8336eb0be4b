import { useEffect, useRef } from 'react'
import { say } from '../ui/say'

/** Longer than this is waited for, and said to be. */
const patienceMs = 700

/** Says what days the wall shows whenever others are turned to, and while they are not there yet that they are fetched. */
export function useSaid(shown: string, isHere: boolean) {
  const said = useRef(shown)
  useEffect(() => {
    if (said.current === shown) return
    if (isHere) {
      said.current = shown
      say(shown)
      return
    }
    const timer = setTimeout(() => say(`${shown}: being fetched.`), patienceMs)
    return () => clearTimeout(timer)
  }, [shown, isHere])
}
