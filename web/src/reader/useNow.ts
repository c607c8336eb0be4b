import { useEffect, useState } from 'react'
import { useReader } from './person'

/** The local time that is now on the reader's clock; renewed every half minute. */
export function useNow(): string {
  const { person, now } = useReader()
  const read = () =>
    Temporal.Instant.fromEpochMilliseconds(now())
      .toZonedDateTimeISO(person.zone)
      .toPlainDateTime()
      .toString({ smallestUnit: 'second' })
  const [local, setLocal] = useState(read)
  useEffect(() => {
    const timer = setInterval(() => setLocal(read()), 30_000)
    return () => clearInterval(timer)
  })
  return local
}
