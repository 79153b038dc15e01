import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { isOpening, notLoaded, router } from './router'
import { hasTyped } from './shared/writing/typed'

const meta = { place: 'today', title: 'Made up' } as const
const assign = vi.fn()

beforeEach(() => {
  vi.useFakeTimers()
  sessionStorage.clear()
  vi.stubGlobal('location', { ...location, assign })
  assign.mockClear()
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

describe('going to a page', () => {
  it('loads it from the new build after an update, once', async () => {
    const lost = () => Promise.reject(new TypeError('the file is gone'))
    router.addRoute({ path: '/lost', component: lost, meta })
    await router.push('/lost?piece=A').catch(() => undefined)
    expect(assign).toHaveBeenCalledWith('/lost?piece=A')
    // the page it was loaded from has the same fault: no loop
    await router.push('/lost?piece=A').catch(() => undefined)
    expect(assign).toHaveBeenCalledTimes(1)
    expect(notLoaded.value).toBe('/lost?piece=A')
    await router.push('/no/such/page')
    expect(notLoaded.value).toBe('')
    expect(document.title).toBe('No such page · Dolmetsch')
  })

  it('says so where it takes its time, until it is there', async () => {
    let arrive: (page: object) => void = () => undefined
    const page = new Promise<object>((resolve) => (arrive = resolve))
    router.addRoute({ path: '/slow', component: () => page as never, meta })
    const gone = router.push('/slow')
    await vi.advanceTimersByTimeAsync(399)
    expect(isOpening.value).toBe(false)
    await vi.advanceTimersByTimeAsync(1)
    expect(isOpening.value).toBe(true)
    arrive({ template: '<i />' })
    await gone
    expect(isOpening.value).toBe(false)
    expect(document.title).toBe('Made up · Dolmetsch')
  })

  it('leaves nothing typed behind', async () => {
    router.addRoute({ path: '/there', component: { template: '<i />' }, meta })
    document.body.innerHTML = '<main><input /></main>'
    document.querySelector('input')?.dispatchEvent(new Event('input', { bubbles: true }))
    expect(hasTyped()).toBe(true)
    await router.push('/there')
    expect(hasTyped()).toBe(false)
  })
})
