import { describe, expect, it } from 'vitest'
import { asksAgain, noConnection, ProblemError } from './client'

describe('a read that failed', () => {
  const busy = new ProblemError({ ...noConnection, status: 503, code: 'busy' })

  it('is asked again by itself where many asked at once, three times', () => {
    expect([0, 1, 2, 3].map((times) => asksAgain(times, busy))).toEqual([true, true, true, false])
  })

  it('is shown at once where anything else was wrong', () => {
    expect(asksAgain(0, new ProblemError(noConnection))).toBe(false)
    expect(asksAgain(0, new Error('busy'))).toBe(false)
  })
})
