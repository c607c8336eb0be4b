import type { Schema } from '../api/client'

type Act = Schema['HistoryActBody']

/** What an act did, in words: "“Celadon”: moved it from …", "12 events: added them". */
export function actText({ deeds, count }: Pick<Act, 'deeds' | 'count'>): string {
  const [first, ...rest] = deeds
  if (!first) return ''
  const told =
    deeds.length === 1 || count === 1 ? [...new Set(deeds.flatMap(({ what }) => what))] : first.what
  const more = new Set(rest.map(({ about }) => about)).size > 0 && count > 1 ? ` and ${count - 1} more` : ''
  return `“${first.about || 'Untitled'}”${more}: ${told.join('; ')}`
}
