import type { Query } from '@tanstack/react-query'

/**
 * Events that went by an act of this page while their desk is still open for a moment: what the live line tells of them
 * then is no reason to ask for them again, where there would be nothing.
 */
const gone = new Set<unknown>()

export const leaveAlone = (eventId: string) => void gone.add(eventId)

/** Nothing shows it any more: opened again, it is asked for as everything is. */
export const askAgainFor = ({ queryKey }: Pick<Query, 'queryKey'>) => void gone.delete(queryKey[1])

export const isLeftAlone = ({ queryKey }: Pick<Query, 'queryKey'>): boolean => gone.has(queryKey[1])
