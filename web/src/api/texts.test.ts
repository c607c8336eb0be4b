import { expect, test } from 'vitest'
import type { Schema } from './client'
import { bricksWithTexts, withTexts } from './texts'

const texts: Schema['BrickTexts'][] = [
  { notes: 'Bring tiles', attendees: ['a'], editors: [], repeats: 'daily', rule: 'FREQ=DAILY' },
]
const empty = { notes: null, attendees: [], editors: [], repeats: null, rule: null }

test('a brick takes its texts from beside it, and one that has its own keeps them', () => {
  expect(withTexts({ ...empty, title: 'Glaze', texts: 0 }, texts)).toEqual({
    title: 'Glaze',
    ...texts[0],
    texts: null,
  })
  const own = { ...empty, notes: 'Its own', texts: null }
  expect(withTexts(own, texts)).toBe(own)
})

test('busy time has no texts', () => {
  const busy = { form: 'busy' as const, calendarId: 'c', start: '', end: '', tentative: false }
  expect(bricksWithTexts({ bricks: [busy], texts })).toEqual({ bricks: [busy], texts: [] })
})
