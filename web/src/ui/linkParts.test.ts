import { expect, it } from 'vitest'
import { linkParts } from './linkParts'

it.each([
  ['No link here.', ['No link here.']],
  [
    'From https://mortar.example.org. More: https://mortar.example.org/stop/a-b_c',
    ['From ', 'https://mortar.example.org', '. More: ', 'https://mortar.example.org/stop/a-b_c', ''],
  ],
  [
    'See (http://kiln.example.org/?q=1.5,2), or “https://a.example.org/x”!',
    ['See (', 'http://kiln.example.org/?q=1.5,2', '), or “', 'https://a.example.org/x', '”!'],
  ],
  ['javascript:alert(1) http://', ['javascript:alert(1) http://']],
])('%s', (text, parts) => {
  expect(linkParts(text)).toEqual(parts)
})
