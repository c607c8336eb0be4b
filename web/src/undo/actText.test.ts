import { expect, test } from 'vitest'
import { actText } from './actText'

const deed = (about: string, ...what: string[]) => ({ about, what, eventId: null })

test.each([
  [
    'one thing',
    { count: 1, deeds: [deed('Celadon', 'moved it', 'changed the notes')] },
    '“Celadon”: moved it; changed the notes',
  ],
  ['one without a title', { count: 1, deeds: [deed('', 'added it')] }, '“Untitled”: added it'],
  [
    'one thing in two steps',
    { count: 1, deeds: [deed('Classes', 'made the calendar'), deed('Classes', 'took the step Coordinate')] },
    '“Classes”: made the calendar; took the step Coordinate',
  ],
  [
    'several',
    { count: 12, deeds: [deed('One', 'added it'), deed('Two', 'added it')] },
    '“One” and 11 more: added it',
  ],
  ['nothing that is told', { count: 0, deeds: [] }, ''],
])('%s', (_, act, text) => {
  expect(actText(act)).toBe(text)
})
