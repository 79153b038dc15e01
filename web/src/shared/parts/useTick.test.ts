import { flushPromises } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { Act } from '@/shared/api/client'
import { standIn } from '@/shared/tests/samples'
import { useTick } from './useTick'

const act = (state: Act['state']) =>
  ({ uid: 'u-1', words: 'Turn and rub', code: 'B-02', marks: ['A'], state }) as unknown as Act

describe('ticking off', () => {
  beforeEach(() => {
    localStorage.clear()
    standIn('lb')
  })

  it('does not offer itself again before its list shows what became of it', async () => {
    vi.stubGlobal('fetch', async () => Response.json({ acts: [] }, { status: 201 }))
    const { tell, isWaiting } = useTick()
    expect(isWaiting(act('open'))).toBe(false)
    tell(act('open'), { sort: 'done' })
    expect(isWaiting(act('open'))).toBe(true)
    await flushPromises()
    // it has arrived; the list is old still
    expect(isWaiting(act('open'))).toBe(true)
    expect(isWaiting(act('done'))).toBe(false)
  })
})
