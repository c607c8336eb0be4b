import { useEffect, useState } from 'react'

/** A value once it has not changed for a moment: what is being typed is not asked about letter by letter. */
export function useSettled<T>(value: T, after = 250): T {
  const [settled, setSettled] = useState(value)
  useEffect(() => {
    const timer = setTimeout(() => setSettled(value), after)
    return () => clearTimeout(timer)
  }, [value, after])
  return settled
}
