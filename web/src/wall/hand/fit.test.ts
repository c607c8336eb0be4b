import { describe, expect, it } from 'vitest'
import type { Brick, EventBrick } from '../../model/bricks'
import { fitsForSure } from './fit'

const titled = (title: string, repeats: string | null = null): Brick =>
  ({
    form: 'event',
    title,
    repeats,
    time: { form: 'clock', start: '2026-03-10T14:00:00', end: '2026-03-10T16:00:00', zone: 'Europe/London' },
  }) as unknown as EventBrick

describe('fitsForSure', () => {
  it('holds for a short title in a wide lane', () => {
    expect(fitsForSure(titled('Glazing'), undefined, 150, 1)).toBe(true)
  })

  it('does not hold where the widest letters would not fit, whatever these are', () => {
    expect(fitsForSure(titled('WWWWWWWW'), undefined, 145, 1)).toBe(false)
    expect(fitsForSure(titled('陶芸教室陶芸教室'), undefined, 145, 1)).toBe(false)
  })

  it('counts a name that is written with it, and the sign of a series', () => {
    expect(fitsForSure(titled('Away'), 'Tomasz Wieczorek', 150, 1)).toBe(false)
    expect(fitsForSure(titled('Glazing'), undefined, 122, 1)).toBe(true)
    expect(fitsForSure(titled('Glazing', 'Each Tuesday'), undefined, 122, 1)).toBe(false)
  })

  it('leaves half of several lines to words that do not break', () => {
    expect(fitsForSure(titled('Wheel basics'), undefined, 100, 4)).toBe(true)
    expect(fitsForSure(titled('Wheel basics'), undefined, 100, 2)).toBe(false)
  })
})
