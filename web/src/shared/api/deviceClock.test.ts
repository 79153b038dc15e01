import { afterEach, describe, expect, it, vi } from 'vitest'

const DAY = 86_400_000
const HERE = Date.parse('2026-03-02T14:00:00Z')

async function clock() {
  vi.resetModules()
  return await import('./deviceClock')
}
const answer = (at: number): Response => new Response('', { headers: { Date: new Date(at).toUTCString() } })

describe('a device whose clock is wrong', () => {
  afterEach(() => vi.useRealTimers())

  it.each([
    [3 * DAY, '3 days slow'],
    [-2 * 3_600_000, '2 hours fast'],
    [130_000, '2 minutes slow'],
    [110_000, ''],
    [800, ''],
  ])('is told from the answers of the server: %d ms', async (ahead, words) => {
    vi.useFakeTimers({ now: HERE })
    const { clockWords, isMeasured, measureClock, stampNow } = await clock()
    expect([isMeasured(), stampNow()]).toEqual([false, new Date(HERE).toISOString()])
    measureClock(answer(HERE + ahead), HERE - 20, HERE + 20)
    expect(clockWords.value).toBe(words)
    const off = Date.parse(stampNow()) - HERE - ahead
    expect(Math.abs(off)).toBeLessThan(1_000)
  })

  it('is not measured by an answer that took long, or tells no time', async () => {
    const { isMeasured, measureClock } = await clock()
    measureClock(answer(HERE), HERE - 6_000, HERE)
    measureClock(new Response(''), HERE, HERE)
    expect(isMeasured()).toBe(false)
  })

  it('has what it stamped before it was measured corrected, once', async () => {
    vi.useFakeTimers({ now: HERE })
    const { corrected, measureClock } = await clock()
    measureClock(answer(HERE + 3 * DAY), HERE, HERE)
    expect(corrected('2026-03-02T13:00:00.000Z').slice(0, 16)).toBe('2026-03-05T13:00')
  })
})
