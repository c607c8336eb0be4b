import { expect, it } from 'vitest'
import { linkParts } from './linkParts'

it.each([
  ['No link here.', []],
  [
    'From https://mortar.example.org. More: https://mortar.example.org/stop/a-b_c',
    ['https://mortar.example.org', 'https://mortar.example.org/stop/a-b_c'],
  ],
  [
    'See (http://kiln.example.org/?q=1.5,2), or “https://a.example.org/x”!',
    ['http://kiln.example.org/?q=1.5,2', 'https://a.example.org/x'],
  ],
  ['javascript:alert(1) http:// www. @ a@b', []],
  ['Map on www.kiln.example.org/way.', ['https://www.kiln.example.org/way']],
  ['Write to nina.b+clay@example.org, or call.', ['mailto:nina.b+clay@example.org']],
  ['https://nina@example.org/x', ['https://nina@example.org/x']],
])('%s', (text, links) => {
  const parts = linkParts(text)

  expect(parts.map((part) => part.text).join('')).toBe(text)
  expect(parts.flatMap((part) => part.href ?? [])).toEqual(links)
})
