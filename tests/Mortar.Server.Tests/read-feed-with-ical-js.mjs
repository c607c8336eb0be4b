// Reads a feed from its input with ical.js, a general-purpose reader that Mortar does not use, and prints each title and start on London's clock.
import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'

const ICAL = createRequire(`${process.cwd()}/`)('ical.js').default ?? createRequire(`${process.cwd()}/`)('ical.js')
const calendar = new ICAL.Component(ICAL.parse(readFileSync(0, 'utf8')))
const london = new Intl.DateTimeFormat('sv-SE', {
  timeZone: 'Europe/London',
  dateStyle: 'short',
  timeStyle: 'medium',
})

const events = calendar.getAllSubcomponents('vevent').map((component) => {
  const { summary, startDate } = new ICAL.Event(component)
  return {
    title: summary,
    start: startDate.isDate
      ? startDate.toString()
      : london.format(startDate.toJSDate()).replace(' ', 'T'),
  }
})
console.log(JSON.stringify(events))
