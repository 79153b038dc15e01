import { flushPromises } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { Task } from '@/shared/api/client'
import { standIn } from '@/shared/tests/samples'
import { useTick } from './useTick'

const task = (state: Task['state']) =>
  ({ uid: 'u-1', words: 'Turn and rub', code: 'B-02', marks: ['A'], state }) as unknown as Task

describe('ticking off', () => {
  beforeEach(() => {
    localStorage.clear()
    standIn('lb')
  })

  it('does not offer itself again before its list shows what became of it', async () => {
    vi.stubGlobal('fetch', async () => Response.json({ tasks: [] }, { status: 201 }))
    const { tell, isWaiting } = useTick()
    expect(isWaiting(task('open'))).toBe(false)
    tell(task('open'), { sort: 'done' })
    expect(isWaiting(task('open'))).toBe(true)
    await flushPromises()
    // it has arrived; the list is old still
    expect(isWaiting(task('open'))).toBe(true)
    expect(isWaiting(task('done'))).toBe(false)
  })
})
