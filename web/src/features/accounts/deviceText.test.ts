import { expect, test } from 'vitest'
import { deviceText } from './deviceText'

// What browsers send, shortened; from memory.
test.each([
  ['Mozilla/5.0 (iPhone; CPU iPhone OS 18_0 like Mac OS X)', 'a phone'],
  ['Mozilla/5.0 (iPad; CPU OS 18_0 like Mac OS X)', 'a tablet'],
  ['Mozilla/5.0 (Linux; Android 16) Mobile', 'a phone'],
  ['Mozilla/5.0 (Linux; Android 16)', 'a tablet'],
  ['Mozilla/5.0 (Windows NT 10.0; Win64; x64)', 'a computer with Windows'],
  ['Mozilla/5.0 (Macintosh; Intel Mac OS X 10_15_7)', 'a computer with macOS'],
  ['Mozilla/5.0 (X11; Linux x86_64)', 'a computer with Linux'],
  ['', 'a device that does not say what it is'],
])('%s is %s', (agent, text) => {
  expect(deviceText(agent)).toBe(text)
})
