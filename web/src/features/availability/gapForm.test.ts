import { describe, expect, it } from 'vitest'
import { asksForSomebody, gapForm, questionOf } from './gapForm'

const form = {
  ...gapForm(['ines', 'dele', 'mei', 'priya'], ['kiln'], '2026-03-09', '2026-03-22', 60, null),
  people: [
    { id: 'ines', need: 'required' as const },
    { id: 'dele', need: 'any' as const },
    { id: 'mei', need: 'any' as const },
    { id: 'priya', need: 'optional' as const },
  ],
}

describe('what is looked for', () => {
  it('tells those who have to be there from those who are welcome and from some of many', () => {
    expect(questionOf(form)).toMatchObject({
      required: ['ines'],
      optional: ['priya'],
      places: ['kiln'],
      any: { count: 1, among: ['dele', 'mei'] },
    })
  })

  it('asks for no more of many than there are', () => {
    expect(questionOf({ ...form, count: 9 }).any?.count).toBe(2)
    expect(questionOf(gapForm(['ines'], [], '2026-03-09', '2026-03-22', 60, null)).any).toBeNull()
  })

  it('is nothing while nobody is chosen', () => {
    expect(asksForSomebody(gapForm([], [], '2026-03-09', '2026-03-22', 60, null))).toBe(false)
    expect(asksForSomebody(form)).toBe(true)
  })
})
