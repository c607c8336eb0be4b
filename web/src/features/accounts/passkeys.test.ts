import { expect, test } from 'vitest'
import { deviceSentence } from './passkeys'

test.each([
  ['InvalidStateError', 'has a passkey for your account already'],
  ['SecurityError', 'by a name and https'],
  ['NotSupportedError', 'cannot ask for a finger'],
  ['NotAllowedError', 'said no'],
  ['AbortError', 'said no'],
])('%s says what to do', (name, part) => {
  expect(deviceSentence(name)).toContain(part)
})
