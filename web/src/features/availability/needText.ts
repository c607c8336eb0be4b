import { asClock } from '../preferences/preferences'

/** What a need is called beside its number: its name and its hours; empty for the group as a whole. */
export function needText(need: { name: string; begins: number | null; ends: number | null }): string {
  const hours =
    need.begins === null
      ? ''
      : need.ends === null
        ? `from ${asClock(need.begins)}`
        : `${asClock(need.begins)} to ${asClock(need.ends)}`
  return [need.name, hours].filter((part) => part !== '').join(', ')
}
