import { expect, it, vi } from 'vitest'
import { inTurn } from './inTurn'

/** A store that counts versions and refuses what is based on an old one. */
function store(version: number) {
  const sent: (number | null)[] = []
  return {
    sent,
    send: async (wish: { eventId: string; version: number | null }) => {
      sent.push(wish.version)
      await Promise.resolve()
      if (wish.version !== version) throw new Error('stale')
      version += 1
      return { eventId: wish.eventId, version }
    },
    changeElsewhere: () => {
      version += 1
    },
  }
}

it('several changes made at once follow each other, each on the one before', async () => {
  const there = store(1)
  const wish = { eventId: 'a', version: 1 }
  await Promise.all([inTurn(wish, there.send), inTurn(wish, there.send), inTurn(wish, there.send)])
  expect(there.sent).toEqual([1, 2, 3])
})

it('what somebody else changed in between stays a conflict', async () => {
  const there = store(1)
  const wish = { eventId: 'b', version: 1 }
  const first = inTurn(wish, there.send).then(there.changeElsewhere)
  await first
  await expect(inTurn(wish, there.send)).rejects.toThrow('stale')
})

it('after one that was refused the next goes on from the last that was not', async () => {
  const there = store(1)
  const wish = { eventId: 'c', version: 1 }
  const refused = async () => Promise.reject(new Error('no'))
  const all = await Promise.allSettled([
    inTurn(wish, there.send),
    inTurn(wish, refused),
    inTurn(wish, there.send),
  ])
  expect(all.map((one) => one.status)).toEqual(['fulfilled', 'rejected', 'fulfilled'])
  expect(there.sent).toEqual([1, 2])
})

it('what was in the hand while its last change was answered goes on from there', async () => {
  const there = store(1)
  await inTurn({ eventId: 'd', version: 1 }, there.send)
  await inTurn({ eventId: 'd', version: 1 }, there.send)
  expect(there.sent).toEqual([1, 2])
})

it('one that was answered meanwhile is gone on from, though the next is on its way', async () => {
  const there = store(1)
  const second = inTurn({ eventId: 'e', version: 1 }, there.send).then(() => {
    const third = inTurn({ eventId: 'e', version: 1 }, there.send)
    return Promise.all([third, inTurn({ eventId: 'e', version: 2 }, there.send)])
  })
  await second
  expect(there.sent).toEqual([1, 2, 3])
})

it('what lies in the hand for long is asked about', async () => {
  const there = store(1)
  const clock = vi.spyOn(performance, 'now').mockReturnValue(0)
  await inTurn({ eventId: 'f', version: 1 }, there.send)
  await Promise.resolve()
  clock.mockReturnValue(6_000)
  await expect(inTurn({ eventId: 'f', version: 1 }, there.send)).rejects.toThrow('stale')
  clock.mockRestore()
})
