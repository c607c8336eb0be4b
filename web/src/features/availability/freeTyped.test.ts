import { describe, expect, it } from 'vitest'
import { freeTyped } from './freeTyped'

const people = [
  { personId: 'priya', name: 'Priya Raman' },
  { personId: 'tomasz', name: 'Tomasz Wilk' },
  { personId: 'ines', name: 'Ines Varga' },
  { personId: 'inesb', name: 'Ines Bell' },
]

const today = '2026-03-11' // a Wednesday

describe('asking by typing', () => {
  it('reads a day, a time and names', () => {
    expect(freeTyped('Thu 14:00 Priya Tomasz', today, people)).toEqual({
      date: '2026-03-12',
      from: '14:00',
      to: null,
      people: ['priya', 'tomasz'],
      unknown: [],
    })
  })

  it('reads stretches, dates and beginnings of names in any order', () => {
    expect(freeTyped('tom 9-11 14 may', today, people)).toMatchObject({
      date: '2026-05-14',
      from: '09:00',
      to: '11:00',
      people: ['tomasz'],
      unknown: [],
    })
    expect(freeTyped('2026-05-14 2pm pri', today, people)).toMatchObject({
      date: '2026-05-14',
      from: '14:00',
      people: ['priya'],
    })
    expect(freeTyped('wed', today, people).date).toBe(today)
    expect(freeTyped('tomorrow 8', today, people)).toMatchObject({ date: '2026-03-12', from: '08:00' })
  })

  it('tells two of a name apart by the other name, and says what it does not know', () => {
    expect(freeTyped('ines bell', today, people).people).toEqual(['inesb'])
    expect(freeTyped('ines 10:00', today, people)).toMatchObject({
      people: [],
      unknown: ['ines'],
      from: '10:00',
    })
    expect(freeTyped('thu 25:00 quentin', today, people).unknown).toEqual(['25:00', 'quentin'])
    expect(freeTyped('priya raman', today, people)).toMatchObject({ people: ['priya'], unknown: [] })
  })

  it('is nothing for nothing', () => {
    expect(freeTyped('  ', today, people)).toEqual({
      date: null,
      from: null,
      to: null,
      people: [],
      unknown: [],
    })
  })
})
