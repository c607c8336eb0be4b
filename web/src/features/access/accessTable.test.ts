import { expect, it } from 'vitest'
import { type Cell, narrowed, ownWay, type TablePerson, waysText } from './accessTable'

const cell: Cell = {
  calendarId: 'rota',
  role: 'edit',
  stays: 'add',
  ways: [
    { way: 'own', role: 'edit', group: null, lastDay: '2026-03-27' },
    { way: 'group', role: 'add', group: 'Raku club', lastDay: null },
    { way: 'default', role: 'view', group: null, lastDay: null },
  ],
}

const person = (name: string, part: Partial<TablePerson> = {}): TablePerson => ({
  personId: name,
  name,
  address: null,
  isMember: true,
  hasLeft: false,
  hasAccount: true,
  wasHere: true,
  isUnseen: false,
  eventsAlone: 0,
  cells: [cell],
  ...part,
})

it('a cell says by which ways its step came', () => {
  expect(waysText(cell)).toBe(
    'Edit: given to them, until Fri 27 March. Add: by Raku club. View: as every member',
  )
  expect(ownWay(cell)?.role).toBe('edit')
})

it('the table narrows to what is worth a look', () => {
  const people = [
    person('Dele'),
    person('Priya', { cells: [{ ...cell, role: 'view' }], isUnseen: true }),
    person('Astrid', { isMember: false, wasHere: false, isUnseen: true }),
    person('Otis', { cells: [], wasHere: false, isUnseen: true }),
  ]
  const names = (to: Parameters<typeof narrowed>[1], words = '') =>
    narrowed(people, to, words).map((one) => one.name)

  expect(names('all', ' de ')).toEqual(['Dele'])
  expect(names('change')).toEqual(['Dele', 'Astrid'])
  expect(names('outside')).toEqual(['Astrid'])
  expect(names('unseen')).toEqual(['Priya', 'Astrid']) // Otis has nothing to lose
})
