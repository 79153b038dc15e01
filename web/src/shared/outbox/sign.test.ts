import { flushPromises, mount } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { setOwner } from '@/shared/api/owner'
import { batch, standIn } from '@/shared/tests/samples'
import { around, plain, refused, server } from '@/shared/tests/server'
import { post, send, useOutbox } from './outbox'
import OutboxSign from './OutboxSign.vue'

beforeEach(() => {
  standIn('lb')
  localStorage.clear()
  window.dispatchEvent(new StorageEvent('storage', { key: null }))
})
afterEach(() => vi.unstubAllGlobals())

const weigh = (mark: string) =>
  post({
    path: '/api/kitchens/test/batches/J-01/entries',
    body: { content: { act: 'withdraw' as const }, seen: 4, corrects: null },
    words: `4.1 lb for ${mark}`,
    code: 'J-01',
    mark,
  })
const entries = 'POST /batches/J-01/entries'
const sign = () => mount(OutboxSign, { global: around() })
const button = (shown: ReturnType<typeof sign>, words: string) =>
  shown.findAll('button').find((one) => one.text() === words)

describe('the sign of what is unsent', () => {
  it('is not there while nothing waits', () => {
    expect(sign().text()).toBe('')
  })

  it('counts what waits and says what it is, until it is sent', async () => {
    const given: Record<string, unknown> = { [entries]: null }
    server(given)
    const shown = sign()
    weigh('A')
    await flushPromises()
    expect(plain(shown.text())).toContain('No connection: 1 record waits on this device')
    weigh('B')
    await flushPromises()
    expect(plain(shown.text())).toContain('2 records wait on this device')
    expect(shown.text()).toContain('4.1 lb for A, 4.1 lb for B')
    given[entries] = { entry: 5, batch: batch({ seen: 5 }) }
    await button(shown, 'Try now')?.trigger('click')
    await vi.waitFor(() => expect(shown.text()).toBe(''))
  })

  it('says when it waits for a sign-in', async () => {
    server({ [entries]: refused('signed_out', { status: 401 }) })
    const shown = sign()
    weigh('A')
    await vi.waitFor(() => expect(plain(shown.text())).toContain('Signed out: 1 record waits'))
  })

  it('shows what others recorded, and records on top of it only on request', async () => {
    const moved = refused('moved_on', { status: 409, changes: ['Odo recorded “Fried”'] })
    const given: Record<string, unknown> = { [entries]: moved }
    const calls = server(given)
    const shown = sign()
    weigh('A')
    await vi.waitFor(() => expect(shown.text()).toContain('Odo recorded “Fried”'))
    expect(plain(shown.text())).toContain('Not recorded: 4.1 lb for A in J-01.')
    // the batch as it is now cannot be asked for: said, and it waits on
    given['GET /batches/J-01'] = null
    await button(shown, 'Record it anyway')?.trigger('click')
    await vi.waitFor(() => expect(shown.text()).toContain('No answer came back'))
    given['GET /batches/J-01'] = batch({ seen: 9 })
    given[entries] = { entry: 10, batch: batch({ seen: 10 }) }
    await button(shown, 'Record it anyway')?.trigger('click')
    await vi.waitFor(() => expect(shown.text()).toBe(''))
    expect(calls.at(-1)?.body).toMatchObject({ seen: 9 })
  })

  it('lets go of a refused one on request', async () => {
    const calls = server({ [entries]: refused('bad_fields', { detail: 'A weighs more than was bought.' }) })
    const shown = sign()
    weigh('A')
    await vi.waitFor(() => expect(shown.text()).toContain('A weighs more than was bought.'))
    expect(button(shown, 'Record it anyway')).toBeUndefined()
    await button(shown, 'Discard this record')?.trigger('click')
    await send()
    expect(shown.text()).toBe('')
    expect(calls).toHaveLength(1)
  })

  it('counts what another cook left here, and neither shows nor sends it', async () => {
    const calls = server({ [entries]: null })
    const shown = sign()
    weigh('A')
    await flushPromises()
    setOwner({ kitchen: 'test', username: 'odo' })
    await flushPromises()
    expect(plain(shown.text())).toBe(
      '1 record of another cook on this device is sent when that cook signs in here again.',
    )
    const before = calls.length
    await send()
    expect(calls).toHaveLength(before)
    setOwner({ kitchen: 'test', username: 'maren' })
    expect(useOutbox().waiting.value.map((letter) => letter.words)).toEqual(['4.1 lb for A'])
  })
})
