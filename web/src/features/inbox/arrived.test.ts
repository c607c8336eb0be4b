import { expect, test } from 'vitest'
import { arrived } from './arrived'

const news = ['a', 'b', 'c'].map((key) => ({ key }))

test('what was there as the screen opened is no news', () => {
  expect(arrived(null, news)).toEqual([])
})

test('what came since is, each once', () => {
  expect(arrived(new Set(['a', 'c']), news)).toEqual([{ key: 'b' }])
  expect(arrived(new Set(['a', 'b', 'c']), news)).toEqual([])
})
