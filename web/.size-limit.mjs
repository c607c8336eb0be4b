import { readdirSync, readFileSync } from 'node:fs'

const assets = 'dist/assets/'
const files = readdirSync(assets)

/** What a script needs before it runs; what it loads when something is opened is not among it. */
const needs = (file) =>
  [...readFileSync(assets + file, 'utf8').matchAll(/(?:from|import)\s*"\.\/([^"]+\.js)"/g)].map(
    ([, name]) => name,
  )

const withNeeds = (file, found) => {
  if (found.has(file)) return found
  found.add(file)
  for (const needed of needs(file)) withNeeds(needed, found)
  return found
}

// The page begins with one script, and the wall is the other; together they are what somebody signed in waits for.
const first = files.filter((file) => /^(index|SignedInApp)-.*\.js$/.test(file) && !file.endsWith('.map'))
const firstLoad = first.reduce((found, file) => withNeeds(file, found), new Set())

export default [
  {
    name: 'script of the first load',
    path: [...firstLoad].map((file) => assets + file),
    limit: '180 kB',
    gzip: true,
  },
]
