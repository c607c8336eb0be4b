import { useLayoutEffect, useRef, useState } from 'react'

type Acts = { [name: string]: (...given: never[]) => void }

/**
 * The same object at every rendering, whose functions do what the latest ones do: what is given to thousands of bricks
 * must not make each of them be drawn anew. Called by what people do, never while rendering.
 */
export function useSteady<T extends object>(acts: T): T {
  const latest = useRef(acts)
  useLayoutEffect(() => {
    latest.current = acts
  })
  const [steady] = useState(() =>
    Object.fromEntries(
      Object.keys(acts).map((name) => [
        name,
        (...given: never[]) => (latest.current as Acts)[name]?.(...given),
      ]),
    ),
  )
  return steady as T
}
