import { describe, expect, it } from 'vitest'
import { everyText } from './everyText'

describe('how often a calendar is fetched', () => {
  it.each([
    [15, 'every quarter of an hour'],
    [20, 'every 20 minutes'],
    [60, 'every hour'],
    [90, 'every 90 minutes'],
    [240, 'every 4 hours'],
    [1440, 'once a day'],
  ])('%i minutes are %s', (minutes, words) => {
    expect(everyText(minutes)).toBe(words)
  })
})
