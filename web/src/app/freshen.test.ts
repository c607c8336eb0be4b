import { QueryClient, QueryObserver } from '@tanstack/react-query'
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest'
import { leaveAlone } from '../api/leftAlone'
import { freshener } from './freshen'

const answers = new Map<string, number>()

vi.mock('../api/client', () => ({ answeredAt: (set: string) => answers.get(set) ?? null }))

/** A question that is on the screen, and what is done to answer it. */
function shown(queries: QueryClient, key: string, answer: () => Promise<unknown>) {
  const asked = vi.fn(answer)
  const stop = new QueryObserver(queries, { queryKey: [key], queryFn: asked, staleTime: 60_000 }).subscribe(
    () => {},
  )
  return { asked, stop }
}

describe('asking anew what others changed', () => {
  beforeEach(() => {
    vi.useFakeTimers()
  })
  afterEach(() => {
    vi.useRealTimers()
  })

  test('asks once for all that is heard at once, and not before its turn', async () => {
    const queries = new QueryClient()
    const { asked, stop } = shown(queries, 'wall', async () => 'wall')
    await vi.advanceTimersByTimeAsync(1)
    const fresh = freshener(queries, () => 0.5)

    for (let n = 0; n < 20; n++) fresh.heard(['wall'])
    await vi.advanceTimersByTimeAsync(99)
    expect(asked).toHaveBeenCalledTimes(1)
    await vi.advanceTimersByTimeAsync(2)
    expect(asked).toHaveBeenCalledTimes(2)
    await vi.advanceTimersByTimeAsync(10_000)
    expect(asked).toHaveBeenCalledTimes(2)
    stop()
  })

  test('never throws away what is under way, and asks once more after it', async () => {
    const queries = new QueryClient()
    const answers: ((wall: string) => void)[] = []
    const { asked, stop } = shown(queries, 'wall', () => new Promise((come) => answers.push(come)))
    await vi.advanceTimersByTimeAsync(1)
    const fresh = freshener(queries, () => 0)

    fresh.heard(['wall'])
    fresh.heard(['wall'])
    await vi.advanceTimersByTimeAsync(5_000)
    expect(asked).toHaveBeenCalledTimes(1)
    answers[0]?.('before')
    await vi.advanceTimersByTimeAsync(1)
    expect(asked).toHaveBeenCalledTimes(2)

    fresh.heard(['wall'])
    await vi.advanceTimersByTimeAsync(5_000)
    expect(asked).toHaveBeenCalledTimes(2)
    answers[1]?.('after')
    await vi.advanceTimersByTimeAsync(1)
    expect(asked).toHaveBeenCalledTimes(3)
    answers[2]?.('last')
    await vi.advanceTimersByTimeAsync(5_000)
    expect(asked).toHaveBeenCalledTimes(3)
    expect(queries.getQueryData(['wall'])).toBe('last')
    stop()
  })

  test('goes on asking while others go on changing: the wall twice a second at most, the rest less', async () => {
    const queries = new QueryClient()
    const wall = shown(queries, 'wall', async () => 'wall')
    const ribbon = shown(queries, 'ribbon', async () => 'ribbon')
    await vi.advanceTimersByTimeAsync(1)
    const fresh = freshener(queries, () => 0)

    for (let n = 0; n < 200; n++) {
      fresh.heard(['wall', 'ribbon'])
      await vi.advanceTimersByTimeAsync(50)
    }

    expect(wall.asked.mock.calls.length).toBeGreaterThanOrEqual(18)
    expect(wall.asked.mock.calls.length).toBeLessThanOrEqual(22)
    expect(ribbon.asked.mock.calls.length).toBeLessThanOrEqual(6)
    expect(ribbon.asked.mock.calls.length).toBeGreaterThanOrEqual(4)
    wall.stop()
    ribbon.stop()
  })

  test('asks on after an answer that failed', async () => {
    const queries = new QueryClient({ defaultOptions: { queries: { retry: false } } })
    const { asked, stop } = shown(queries, 'wall', async () => {
      throw new Error('The line broke.')
    })
    await vi.advanceTimersByTimeAsync(1)
    const fresh = freshener(queries, () => 0)

    fresh.heard(['wall'])
    await vi.advanceTimersByTimeAsync(1)
    fresh.heard(['wall'])
    await vi.advanceTimersByTimeAsync(1_000)

    expect(asked).toHaveBeenCalledTimes(3)
    stop()
  })

  test('asks no more once it is stopped', async () => {
    const queries = new QueryClient()
    const { asked, stop } = shown(queries, 'wall', async () => 'wall')
    await vi.advanceTimersByTimeAsync(1)
    const fresh = freshener(queries, () => 0)

    fresh.heard(['wall'])
    fresh.stop()
    await vi.advanceTimersByTimeAsync(5_000)

    expect(asked).toHaveBeenCalledTimes(1)
    stop()
  })

  test('asks no second time after an act of its own, and once where that was not asked after', async () => {
    const queries = new QueryClient()
    const wall = shown(queries, 'wall', async () => 'wall')
    const cover = shown(queries, 'cover', async () => 'cover')
    await vi.advanceTimersByTimeAsync(1)
    const fresh = freshener(queries, () => 0)

    answers.set('mine', Number.POSITIVE_INFINITY)
    fresh.heard(['wall', 'cover'], ['mine']) // the line may be faster than the answer
    await vi.advanceTimersByTimeAsync(1_000)
    expect(wall.asked).toHaveBeenCalledTimes(1)
    answers.set('mine', performance.now())
    await queries.invalidateQueries({ queryKey: ['wall'] })
    await vi.advanceTimersByTimeAsync(5_000)

    expect(wall.asked).toHaveBeenCalledTimes(2)
    expect(cover.asked).toHaveBeenCalledTimes(2)
    wall.stop()
    cover.stop()
  })

  test('asks after what others did, and after what one did on another screen, whatever one did meanwhile', async () => {
    const queries = new QueryClient()
    const { asked, stop } = shown(queries, 'wall', async () => 'wall')
    await vi.advanceTimersByTimeAsync(1)
    const fresh = freshener(queries, () => 0)

    answers.set('mine', performance.now())
    await queries.invalidateQueries({ queryKey: ['wall'] })
    fresh.heard(['wall'], ['mine'])
    fresh.heard(['wall'])
    await vi.advanceTimersByTimeAsync(5_000)
    expect(asked).toHaveBeenCalledTimes(3)
    fresh.heard(['wall'], ['elsewhere'])
    await vi.advanceTimersByTimeAsync(5_000)
    expect(asked).toHaveBeenCalledTimes(4)
    stop()
  })
})

describe('what is gone', () => {
  beforeEach(() => {
    vi.useFakeTimers()
  })
  afterEach(() => {
    vi.useRealTimers()
  })

  test('what went by an act of this page is not asked for while its desk closes, and is once it is opened again', async () => {
    const queries = new QueryClient()
    const asked = vi.fn(async () => 'event')
    const open = () =>
      new QueryObserver(queries, { queryKey: ['events', 'celadon'], queryFn: asked }).subscribe(() => {})
    const close = open()
    await vi.advanceTimersByTimeAsync(1)
    const fresh = freshener(queries, () => 0)
    leaveAlone('celadon')

    fresh.heard(['events'])
    await vi.advanceTimersByTimeAsync(5_000)
    expect(asked).toHaveBeenCalledTimes(1)

    close()
    const closeAgain = open()
    await vi.advanceTimersByTimeAsync(5_000)
    const before = asked.mock.calls.length
    fresh.heard(['events'])
    await vi.advanceTimersByTimeAsync(5_000)
    expect(asked.mock.calls.length).toBe(before + 1)
    closeAgain()
    fresh.stop()
  })
})
