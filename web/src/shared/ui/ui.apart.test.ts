import { flushPromises, mount } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { defineComponent, h, ref } from 'vue'
import { noConnection, ProblemError } from '@/shared/api/client'
import { post } from '@/shared/outbox/outbox'
import { standIn } from '@/shared/tests/samples'
import { around, plain, server } from '@/shared/tests/server'
import RemoveButton from './RemoveButton.vue'
import LoadState from './LoadState.vue'
import Rail from '@/shared/frame/Rail.vue'
import SaveBar from './SaveBar.vue'

vi.mock('vue-router', () => ({
  useRoute: () => ({ meta: { place: 'bench' } }),
  useRouter: () => ({ push: vi.fn() }),
}))
beforeEach(() => {
  standIn('lb')
  localStorage.clear()
  window.dispatchEvent(new StorageEvent('storage', { key: null }))
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
  vi.restoreAllMocks()
})

describe('a view on its way', () => {
  it('says after four seconds that the connection is slow', async () => {
    vi.useFakeTimers()
    const shown = mount(LoadState, { props: { error: null, what: 'the log' } })
    expect(plain(shown.text())).toBe('Loading the log …')
    await vi.advanceTimersByTimeAsync(3999)
    expect(shown.text()).not.toContain('slow')
    await vi.advanceTimersByTimeAsync(1)
    expect(plain(shown.text())).toBe('Loading the log … The connection is slow.')
  })

  it('that was never seen here says so without a connection, and offers another try', async () => {
    const shown = mount(LoadState, { props: { error: new ProblemError(noConnection), what: 'the log' } })
    expect(shown.text()).toContain('Nothing of this page has been kept on this device yet.')
    await shown.get('button').trigger('click')
    expect(shown.emitted('retry')).toHaveLength(1)
  })
})

describe('the button that saves', () => {
  it('says without a connection that the form is not sent by itself', () => {
    const show = () => mount(SaveBar, { props: { word: 'Save', state: 'idle', problem: null } }).text()
    expect(show()).not.toContain('No connection')
    vi.spyOn(navigator, 'onLine', 'get').mockReturnValue(false)
    expect(plain(show())).toContain('No connection: this form is not sent by itself.')
  })

  it('is not pressed twice, and offers another try only where that can help', () => {
    const show = (state: 'saving' | 'failed' | 'refused') =>
      mount(SaveBar, { props: { word: 'Save', state, problem: state === 'saving' ? null : noConnection } })
    expect(show('saving').get('button').attributes('disabled')).toBeDefined()
    expect(show('failed').text()).toContain('Try again')
    expect(show('refused').text()).not.toContain('Try again')
  })
})

describe('a row that is removed', () => {
  const Rows = defineComponent({
    setup() {
      const rows = ref(['salt', 'sugar', 'pepper'])
      const row = (name: string, at: number) =>
        h(RemoveButton, { key: name, label: `Remove ${name}`, onRemove: () => rows.value.splice(at, 1) })
      return () => h('form', [...rows.value.map(row), h('button', { disabled: true }, 'Save')])
    },
  })

  it('hands the focus to the button before it, or to the first', async () => {
    const shown = mount(Rows, { attachTo: document.body })
    const focused = (): string => document.activeElement?.getAttribute('aria-label') ?? ''
    const remove = async (name: string) => {
      await shown.get(`[aria-label="Remove ${name}"]`).trigger('click')
      await flushPromises()
    }
    await remove('sugar')
    expect(focused()).toBe('Remove salt')
    await remove('salt')
    expect(focused()).toBe('Remove pepper')
  })
})

describe('signing out', () => {
  const out = { signed_in: false, name: '', username: '', kitchens: [], demo: null }
  const given = (): Record<string, unknown> => ({ 'DELETE /api/session': out, 'GET /today': {} })
  const rail = () => mount(Rail, { global: around() })
  const press = async (shown: ReturnType<typeof rail>, word: string): Promise<void> => {
    await shown
      .findAll('button')
      .find((one) => one.text().startsWith(word))
      ?.trigger('click')
    await flushPromises()
  }
  const hasAsked = (calls: ReturnType<typeof server>): boolean =>
    calls.some((call) => call.method === 'DELETE')

  it('asks nothing where all is sent', async () => {
    const calls = server(given())
    await press(rail(), 'Sign out')
    expect(hasAsked(calls)).toBe(true)
  })

  it('says what has not been sent, and waits for a decision', async () => {
    const calls = server({ ...given(), 'POST /batches/J-01/entries': null })
    const shown = rail()
    post({
      path: '/api/kitchens/test/batches/J-01/entries',
      body: { content: { act: 'withdraw' as const }, seen: 4, corrects: null },
      words: '4.1 lb for A',
      code: 'J-01',
      mark: 'A',
    })
    await flushPromises()
    await press(shown, 'Sign out Maren')
    expect(plain(shown.get('[role=alert]').text())).toContain('1 record has not been sent.')
    await press(shown, 'Stay signed in')
    expect(shown.find('[role=alert]').exists()).toBe(false)
    expect(hasAsked(calls)).toBe(false)
    await press(shown, 'Sign out Maren')
    await press(shown, 'Sign out anyway')
    expect(hasAsked(calls)).toBe(true)
  })
})
