import { afterEach, describe, expect, it, vi } from 'vitest'
import { newKey } from './newKey'

afterEach(() => vi.unstubAllGlobals())

describe('a new key', () => {
  const key = /^[0-9a-f]{8}-[0-9a-f]{4}-4[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/

  it('is another one each time', () => {
    expect(newKey()).toMatch(key)
    expect(new Set(Array.from({ length: 200 }, newKey)).size).toBe(200)
  })

  it('is made where the browser makes none itself', () => {
    const getRandomValues = crypto.getRandomValues.bind(crypto)
    vi.stubGlobal('crypto', { getRandomValues })
    expect(newKey()).toMatch(key)
    expect(newKey()).not.toBe(newKey())
  })
})
