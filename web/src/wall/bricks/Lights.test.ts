import { describe, expect, it } from 'vitest'
import type { Gap } from '../../model/availabilityQueries'
import { lightsOn } from './Lights'

const gap = (start: string, end: string, missing: string[] = []): Gap => ({
  start: `2026-03-${start}:00`,
  end: `2026-03-${end}:00`,
  suggested: `2026-03-${start}:00`,
  suggestedEnd: `2026-03-${end}:00`,
  inHours: true,
  missing,
  any: [],
  named: [],
  elsewhere: [],
})

describe('gaps on a day', () => {
  it('are cut at midnight and in order', () => {
    const gaps = [gap('12T14:00', '12T16:00'), gap('11T20:00', '12T09:30')]
    expect(lightsOn(gaps, '2026-03-12').map((one) => [one.from, one.to])).toEqual([
      [0, 570],
      [840, 960],
    ])
    expect(lightsOn(gaps, '2026-03-11').map((one) => [one.from, one.to])).toEqual([[1200, 1440]])
    expect(lightsOn(gaps, '2026-03-13')).toEqual([])
  })

  it('leave out what lies in a better one', () => {
    const gaps = [gap('12T14:00', '12T16:00'), gap('12T14:30', '12T15:30', ['dele'])]
    expect(lightsOn(gaps, '2026-03-12')).toHaveLength(1)
  })

  it('end at midnight on the day before', () => {
    expect(lightsOn([gap('11T20:00', '12T00:00')], '2026-03-12')).toEqual([])
  })
})
