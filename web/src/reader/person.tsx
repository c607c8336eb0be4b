import { createContext, type ReactNode, useContext, useMemo } from 'react'
import { writeDatesFor } from './dates'
import type { Person } from './session'

interface Reader {
  person: Person
  demo: boolean
  /** What o'clock it is for Mortar, in milliseconds; the demo may stand at another date than the browser. */
  now: () => number
  isWeekend: (day: string) => boolean
}

const PersonContext = createContext<Reader | null>(null)

export function PersonProvider({
  person,
  now,
  demo,
  children,
}: {
  person: Person
  now: string
  demo: boolean
  children: ReactNode
}) {
  const reader = useMemo(() => {
    const shift = Date.parse(now) - Date.now()
    writeDatesFor(person.preferences.locale, person.preferences.clock === 'hours12')
    const isWeekend = (day: string) => person.weekend.includes(new Date(`${day}T00:00:00Z`).getUTCDay() || 7)
    return { person, demo, now: () => Date.now() + shift, isWeekend }
  }, [person, now, demo])
  return <PersonContext value={reader}>{children}</PersonContext>
}

export function useReader(): Reader {
  const reader = useContext(PersonContext)
  if (!reader) throw new Error('useReader needs a PersonProvider around it.')
  return reader
}
