import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import type { Schema } from '../../api/client'
import type { FreeForm } from '../../features/availability/FreeDesk'
import { useGaps } from '../../features/availability/useGaps'
import { useProposed } from '../../features/proposals/useProposed'
import { useClashes } from '../../frame/useClashes'
import { coverQuery } from '../../model/availabilityQueries'
import { localAt, minuteOf, minutesBetween, plusMinutes } from '../../model/times'
import type { View } from '../../model/views'
import { useReader } from '../../reader/person'
import type { Place } from '../hand/grip'
import { useSteady } from '../hand/useSteady'
import type { DeskPlace } from './deskPlace'

/** For more people than these the server looks for no gaps. */
const mostTogether = 500

interface AskedProps {
  view: View
  desk: DeskPlace | null
  /** Whether one looks through somebody else's eyes: then nothing is asked. */
  isAs: boolean
  isLoaded: boolean
  first: string
  last: string
  now: string
  today: string
  group: Schema['GroupsGroupBody'] | undefined
  inView: readonly string[]
  onShowClashes: () => void
}

/** What the wall is asked beside what lies on it: gaps, proposed times, who is free, what collides, who is left. */
export function useAsked({
  view,
  desk,
  isAs,
  isLoaded,
  first,
  last,
  now,
  today,
  group,
  inView,
  onShowClashes,
}: AskedProps) {
  const { preferences } = useReader().person
  const isFew = !isAs && inView.length <= mostTogether
  const gaps = useGaps({
    isOpen: desk?.kind === 'gaps',
    hasTogether: view === 'roster' && isFew,
    people: inView,
    first,
    last,
    today,
    minutes: preferences.eventMinutes,
    group: group?.id ?? null,
  })
  const proposed = useProposed(
    desk?.kind === 'propose' ? gaps.kept : null,
    desk?.kind === 'proposal' ? desk.id : null,
  )
  const needsCover = (group?.cover.length ?? 0) > 0 && view === 'roster' && !isAs
  const cover = useQuery({ ...coverQuery(group?.id ?? '', first, last), enabled: needsCover })
  const clashing = useClashes(today, isLoaded && !isAs, useSteady({ show: onShowClashes }).show)
  const [free, setFree] = useState<FreeForm>(() => {
    const start = now.slice(0, 14) + (minuteOf(now) % 60 < 30 ? '00:00' : '30:00')
    return { start, end: plusMinutes(start, preferences.eventMinutes), people: [] }
  })
  return {
    gaps,
    proposed,
    /** What the roster's row of all together shows. */
    together: proposed ?? (isFew && inView.length > 1 ? gaps.together : null),
    cover: needsCover ? cover.data : undefined,
    clashing,
    free,
    setFree,
    /** Takes a time that was pressed on the wall, while it is asked who is free. */
    pointAt: ({ day, minute }: Place) => {
      if (desk?.kind !== 'free') return
      const start =
        minute === null ? `${day}${free.start.slice(10)}` : localAt(day, Math.floor(minute / 15) * 15)
      setFree({ ...free, start, end: plusMinutes(start, minutesBetween(free.start, free.end)) })
    },
  }
}
