// Reads studio.ics with ical.js, a general-purpose reader that Mortar does not use, and prints what it understands.
// The result is kept as studio.ical-js.json; made by, from the web folder:
//   node ../tests/Mortar.Formats.Tests/Samples/read-with-ical-js.mjs > ../tests/Mortar.Formats.Tests/Samples/studio.ical-js.json
import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'

const ICAL = createRequire(`${process.cwd()}/`)('ical.js').default ?? createRequire(`${process.cwd()}/`)('ical.js')
const file = new URL('studio.ics', import.meta.url)
const calendar = new ICAL.Component(ICAL.parse(readFileSync(file, 'utf8')))

const until = ICAL.Time.fromString('2027-06-01T00:00:00')
const text = (time) => time.toString().replace(/Z$/, '')
const all = calendar.getAllSubcomponents('vevent').map((component) => new ICAL.Event(component))
const masters = all.filter((event) => !event.isRecurrenceException())
for (const event of masters)
  for (const changed of all.filter((one) => one.isRecurrenceException() && one.uid === event.uid)) event.relateException(changed)

const occurrences = (event) => {
  const found = []
  const iterator = event.iterator()
  for (let next = iterator.next(); next && next.compare(until) < 0; next = iterator.next()) {
    const { item, startDate, endDate } = event.getOccurrenceDetails(next)
    found.push({ start: text(startDate), end: text(endDate), title: item.summary })
  }
  return found
}

console.log(
  JSON.stringify(
    masters.map((event) => ({
      uid: event.uid,
      title: event.summary,
      place: event.location ?? '',
      notes: event.description ?? '',
      start: text(event.startDate),
      end: text(event.endDate),
      wholeDays: event.startDate.isDate,
      occurrences: event.isRecurring() ? occurrences(event) : null,
    })),
    null,
    2,
  ),
)
