import { expect, it } from 'vitest'
import { snippet } from './snippet'

it('a frame of the size and view that was chosen, and a script only where it is to grow', () => {
  expect(
    snippet('https://m.example.org/b/raku-club', 'Raku club', { height: 450, grows: false, view: 'month' }),
  ).toBe(
    '<iframe src="https://m.example.org/b/raku-club?frame=1&amp;view=month" title="Raku club" width="100%" height="450" style="border:0" loading="lazy"></iframe>',
  )
  expect(snippet('https://m.example.org/b/x', 'X', { height: 300, grows: true })).toContain(
    '\n<script src="https://m.example.org/noticeboard-frame.js" async></script>',
  )
})

it('no title ends what it stands in', () => {
  const text = snippet('https://m.example.org/b/x', '"><script>alert(1)</script>', {
    height: 300,
    grows: false,
  })
  expect(text).not.toContain('<script>')
  expect(text.match(/"/g)).toHaveLength(12)
})
