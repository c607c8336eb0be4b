/** A calendar as it was at a moment, as an address names it. */
export interface MomentPlace {
  calendarId: string
  /** The moment, as an instant. */
  at: string
}

export function readMoment(text: string | null): MomentPlace | null {
  const [calendarId, at] = text?.split('~') ?? []
  return calendarId && at ? { calendarId, at } : null
}

export const writeMoment = ({ calendarId, at }: MomentPlace): string => `${calendarId}~${at}`
