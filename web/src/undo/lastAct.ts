import { api, unwrap } from '../api/client'
import { momentText } from '../reader/dates'
import { actText } from './actText'

/** The latest act of one's own that stands, wherever it was done, and what it was. */
export async function lastAct(): Promise<{ act: string; words: string } | undefined> {
  const { acts } = await unwrap(api.GET('/api/history'))
  const last = acts.find((one) => one.canBeUndone && !one.isUndo && !one.isUndone)
  // The line under the wall is short: the first of what it did says which one is meant.
  const short = last && {
    ...last,
    deeds: last.deeds.map((deed) => ({ ...deed, what: deed.what.slice(0, 1) })),
  }
  return short && { act: short.act, words: `${actText(short)} (${momentText(short.at)})` }
}
