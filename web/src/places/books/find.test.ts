import { flushPromises, mount, RouterLinkStub } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { standIn } from '@/shared/tests/samples'
import { routed } from '@/shared/tests/router'
import { plain, refused, server } from '@/shared/tests/server'
import FindBox from './FindBox.vue'

beforeEach(() => {
  standIn('lb')
  vi.useFakeTimers({ shouldAdvanceTime: true })
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

const one = { detail: 'what it is', code: '', mark: '', name: '', id: null }
const found = [
  { ...one, kind: 'batch', title: 'B-02 Belly', code: 'B-02' },
  { ...one, kind: 'piece', title: 'B-02 A', code: 'B-02', mark: 'A' },
  { ...one, kind: 'pack', title: 'B-02 P1', code: 'B-02', mark: 'P1' },
  { ...one, kind: 'note', title: 'Fog', code: 'B-02' },
  { ...one, kind: 'price', title: 'juniper', id: 7 },
  { ...one, kind: 'dish', title: 'Harbor roll', name: 'Harbor roll' },
  { ...one, kind: 'plan', title: 'Ferry supper', name: 'Ferry supper' },
  { ...one, kind: 'person', title: 'Maren', name: 'maren' },
]

async function ask(words: string, answer: unknown) {
  const calls = server({ [`GET /find?words=${words}`]: answer })
  const shown = mount(FindBox, { global: routed() })
  await shown.find('input').setValue(words)
  await vi.advanceTimersByTimeAsync(300)
  await flushPromises()
  return { shown, calls }
}

describe('finding', () => {
  it('shows each kind by itself, and leads to where each is', async () => {
    const { shown } = await ask('b', { found, more: ['batch'] })
    expect(shown.findAll('h2').map((head) => head.text())).toEqual([
      ...['Batches', 'Pieces', 'Packs', 'Notes', 'Prices', 'Dishes', 'Plans', 'People'],
    ])
    const links = shown.findAllComponents(RouterLinkStub).map((link) => link.props('to'))
    expect(links).toEqual([
      { name: 'log', params: { code: 'B-02' } },
      { name: 'batches', query: { find: 'b' } },
      { name: 'piece', params: { code: 'B-02', mark: 'A' } },
      { name: 'pack', params: { code: 'B-02', mark: 'P1' } },
      { name: 'diary', params: { code: 'B-02' } },
      { name: 'price', params: { id: '7' } },
      { name: 'dish', params: { name: 'Harbor roll' } },
      { name: 'plan', params: { name: 'Ferry supper' } },
    ])
    expect(plain(shown.text())).toContain('Marenwhat it is')
  })

  it('asks for nothing where nothing is typed, and says that nothing is called so', async () => {
    const { shown, calls } = await ask('fog', { found: [], more: [] })
    expect(plain(shown.text())).toContain('No match.')
    await shown.find('input').setValue('  ')
    await vi.advanceTimersByTimeAsync(300)
    expect(calls).toHaveLength(1)
    expect(plain(shown.text())).not.toContain('No match.')
  })

  it('says why it could not be asked', async () => {
    const { shown } = await ask('x', refused('bad_request', { detail: 'words: too long.' }))
    expect(plain(shown.text())).toContain('words: too long.')
  })
})
