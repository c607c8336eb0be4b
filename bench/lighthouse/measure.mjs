// Prints what Lighthouse finds of a page, on a phone as it imagines one, and fails below the goal of noticeboards.
import { launch } from 'chrome-launcher'
import lighthouse from 'lighthouse'

const goal = { performance: 95, accessibility: 100, 'best-practices': 100, seo: 100 }
const mostBytes = 60_000

const [url] = process.argv.slice(2)
const chrome = await launch({
  chromePath: process.env.CHROME_PATH ?? '/usr/bin/chromium',
  chromeFlags: ['--headless=new', '--no-sandbox', '--disable-gpu'],
})
try {
  const { lhr } = await lighthouse(url, { port: chrome.port, onlyCategories: Object.keys(goal), logLevel: 'error' })
  const bytes = lhr.audits['total-byte-weight'].numericValue
  let missed = bytes > mostBytes
  for (const [name, least] of Object.entries(goal)) {
    const score = Math.round(lhr.categories[name].score * 100)
    missed ||= score < least
    console.log(`${name}: ${score} of ${least}`)
  }
  console.log(`bytes: ${Math.round(bytes)} of at most ${mostBytes}`)
  console.log(`Lighthouse ${lhr.lighthouseVersion}, ${url}`)
  process.exitCode = missed ? 1 : 0
} finally {
  await chrome.kill()
}
