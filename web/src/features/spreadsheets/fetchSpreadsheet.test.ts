import { expect, it } from 'vitest'
import { nameIn } from './fetchSpreadsheet'

it('reads the name a file comes with', () => {
  expect(nameIn("attachment; filename=T.csv; filename*=UTF-8''T%C3%B6pfer.csv")).toBe('Töpfer.csv')
  expect(nameIn('attachment')).toBeUndefined()
  expect(nameIn(null)).toBeUndefined()
})
