import { expect, it } from 'vitest'
import { namedPeriods } from './namedPeriods'

const at = (label: string, firstDay = 1) =>
  namedPeriods('2026-03-11', firstDay).find((one) => one.label === label)

it('names weeks and months around a day', () => {
  expect(at('This week')).toMatchObject({ from: '2026-03-09', to: '2026-03-15' })
  expect(at('This week', 7)).toMatchObject({ from: '2026-03-08', to: '2026-03-14' })
  expect(at('Last month')).toMatchObject({ from: '2026-02-01', to: '2026-02-28' })
  expect(at('Next month')).toMatchObject({ from: '2026-04-01', to: '2026-04-30' })
  expect(at('This year')).toMatchObject({ from: '2026-01-01', to: '2026-12-31' })
})
