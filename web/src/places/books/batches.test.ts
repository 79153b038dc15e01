import { flushPromises, mount } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { createMemoryHistory, createRouter } from 'vue-router'
import { standIn, summary } from '@/shared/tests/samples'
import { around, plain } from '@/shared/tests/server'
import BatchesPlace from './BatchesPlace.vue'

beforeEach(() => {
  standIn('lb')
  vi.useFakeTimers()
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

/** The page at `at`, with 45 batches on three pages; what was asked of the server, and where the address is. */
async function open(at: string) {
  const asked: string[] = []
  vi.stubGlobal('fetch', async (request: Request) => {
    const query = new URL(request.url).searchParams
    asked.push(query.toString())
    const page = Number(query.get('page'))
    return Response.json({ batches: [summary({ code: `J-${page}` })], total: 45, page, pages: 3 })
  })
  const name = (path: string, called: string) => ({ path, name: called, component: { template: '<i />' } })
  const router = createRouter({
    history: createMemoryHistory(),
    routes: [
      name('/books/batches', 'batches'),
      name('/start', 'start'),
      name('/b/:code', 'strip'),
      name('/l/:code', 'log'),
    ],
  })
  await router.push(at)
  const plugins = [...around().plugins, router] as never
  const shown = mount(BatchesPlace, { global: { plugins } })
  await settle()
  return { shown, asked, router }
}
async function settle() {
  await vi.advanceTimersByTimeAsync(300)
  await flushPromises()
}

describe('every batch', () => {
  it('is a page at a time, by what the address says', async () => {
    const { shown, asked } = await open('/books/batches?find=jowl&state=finished&page=2')
    expect(asked).toEqual(['words=jowl&page=2&is_finished=true'])
    expect(plain(shown.text())).toContain('45 batches found')
    expect(plain(shown.text())).toContain('page 2 of 3')
    const older = shown.findAll('button').find((one) => one.text() === 'Older')
    await older?.trigger('click')
    await settle()
    expect(asked.at(-1)).toContain('page=3')
    expect(older?.attributes('disabled')).toBeDefined()
  })

  it('goes back to the first page when something else is looked for, and the address keeps both', async () => {
    const { shown, asked, router } = await open('/books/batches?page=3')
    await shown.findAll('input[type="date"]')[0]?.setValue('2026-03-01')
    await settle()
    expect(asked.at(-1)).toBe('words=&page=1&since=2026-03-01')
    expect(router.currentRoute.value.fullPath).toBe('/books/batches?since=2026-03-01')
    await shown.get('input[type="search"]').setValue('ham')
    await settle()
    expect(asked.at(-1)).toBe('words=ham&page=1&since=2026-03-01')
    expect(router.currentRoute.value.fullPath).toBe('/books/batches?since=2026-03-01&find=ham')
  })
})
