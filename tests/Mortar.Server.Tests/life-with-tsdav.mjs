// Lives the whole life of a calendar with tsdav, a general-purpose client library that Mortar does not use, against a
// server whose address, user and key it is given, and prints what it found at each step.
import { createRequire } from 'node:module'

const { createDAVClient } = createRequire(`${process.cwd()}/`)('tsdav')
const [serverUrl, username, password, name] = process.argv.slice(2)
const steps = []
const told = (step, found) => steps.push({ step, found })

const client = await createDAVClient({
  serverUrl,
  credentials: { username, password },
  authMethod: 'Basic',
  defaultAccountType: 'caldav',
})
const calendars = await client.fetchCalendars()
told(
  'calendars',
  calendars.map((one) => one.displayName),
)
const calendar = calendars.find((one) => one.displayName === name)
told('components', calendar.components)
told('reports', calendar.reports)

const file = (summary, more = '') =>
  [
    'BEGIN:VCALENDAR',
    'VERSION:2.0',
    'PRODID:-//Trial//Trial//EN',
    'BEGIN:VEVENT',
    'UID:life@trial',
    'DTSTAMP:20260301T080000Z',
    'DTSTART:20260312T090000Z',
    'DTEND:20260312T100000Z',
    'RRULE:FREQ=WEEKLY;COUNT=4',
    `SUMMARY:${summary}`,
    'END:VEVENT',
    ...(more
      ? [
          'BEGIN:VEVENT',
          'UID:life@trial',
          'DTSTAMP:20260301T080000Z',
          'RECURRENCE-ID:20260319T090000Z',
          'DTSTART:20260319T110000Z',
          'DTEND:20260319T120000Z',
          `SUMMARY:${more}`,
          'END:VEVENT',
        ]
      : []),
    'END:VCALENDAR',
    '',
  ].join('\r\n')

const made = await client.createCalendarObject({
  calendar,
  filename: 'life.ics',
  iCalString: file('Weekly firing'),
})
told('create', made.status)
const again = await client.createCalendarObject({
  calendar,
  filename: 'life.ics',
  iCalString: file('Weekly firing'),
})
told('create again', again.status)

const inMarch = () =>
  client.fetchCalendarObjects({
    calendar,
    timeRange: { start: '2026-03-01T00:00:00.000Z', end: '2026-04-30T00:00:00.000Z' },
  })
const listed = await inMarch()
told(
  'list',
  listed.map((one) => [one.url.split('/').pop(), Boolean(one.etag), /SUMMARY:(.*)/.exec(one.data)[1]]),
)
const expanded = await client.fetchCalendarObjects({
  calendar,
  expand: true,
  timeRange: { start: '2026-03-13T00:00:00.000Z', end: '2026-04-30T00:00:00.000Z' },
})
told('dates', (expanded[0].data.match(/BEGIN:VEVENT/g) ?? []).length)

const before = await client.syncCollection({
  url: calendar.url,
  props: { 'd:getetag': {} },
  syncLevel: 1,
})
const token = before[0].raw.multistatus.syncToken
told('sync', before.filter((one) => one.href?.endsWith('.ics')).length)

const changed = await client.updateCalendarObject({
  calendarObject: { ...listed[0], data: file('Weekly firing', 'Firing, later') },
})
told('change', changed.status)
const stale = await client.updateCalendarObject({
  calendarObject: { ...listed[0], data: file('Nobody wants this') },
})
told('conflict', stale.status)
const after = await client.syncCollection({
  url: calendar.url,
  props: { 'd:getetag': {} },
  syncLevel: 1,
  syncToken: token,
})
told(
  'sync after',
  after.map((one) => [one.href.split('/').pop(), one.status]),
)
const now = (await inMarch())[0]
told('exception', now.data.includes('SUMMARY:Firing\\, later') || now.data.includes('SUMMARY:Firing, later'))
const deleted = await client.deleteCalendarObject({ calendarObject: now })
told('delete', deleted.status)
const gone = await client.syncCollection({
  url: calendar.url,
  props: { 'd:getetag': {} },
  syncLevel: 1,
  syncToken: after[0].raw.multistatus.syncToken,
})
told(
  'sync gone',
  gone.map((one) => [one.href.split('/').pop(), one.status]),
)
told('left', (await inMarch()).length)
console.log(JSON.stringify(steps))
