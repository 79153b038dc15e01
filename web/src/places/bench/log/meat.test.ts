import { flushPromises, mount } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Schemas } from '@/shared/api/client'
import { piece, pieces } from '@/shared/tests/bench'
import { batch, cost, standIn, summary, weight } from '@/shared/tests/samples'
import { around, plain, refused, server } from '@/shared/tests/server'
import BenchIndex from './BenchIndex.vue'
import ButchersTest from './ButchersTest.vue'
import LookOver from './LookOver.vue'
import PieceSizes from './PieceSizes.vue'

beforeEach(() => {
  standIn('lb')
  localStorage.clear()
})
afterEach(() => vi.unstubAllGlobals())

describe('looking the meat over', () => {
  const looks = [
    { key: 'bone', question: 'Bone chips?', what_to_do: 'Cut them out.', stops: false },
    { key: 'smell', question: 'Smells off?', what_to_do: 'Do not cure it.', stops: true },
  ]
  const open = async (more: Record<string, unknown> = {}) => {
    const given: Record<string, unknown> = { 'GET /looks': looks, ...more }
    const calls = server(given)
    const shown = mount(LookOver, { props: { batch: batch() }, global: around() })
    await vi.waitFor(() => expect(shown.findAll('li')).toHaveLength(2))
    return { given, calls, shown }
  }

  it('says what to do at once, and what stops the work most plainly', async () => {
    const { shown } = await open()
    expect(shown.find('.do').exists()).toBe(false)
    await shown.findAll('[role="checkbox"]')[1]?.trigger('click')
    expect(plain(shown.get('.do').text())).toBe('▲ Do not cure it.')
    expect(shown.findAll('li')[1]?.classes()).toContain('stops')
  })

  it('keeps what was found, or that nothing was', async () => {
    const { calls, shown } = await open({ 'POST /batches/J-01/look-overs': pieces(['A']) })
    expect(shown.get('[type="submit"]').text()).toBe('Checked, nothing found')
    await shown.get('[role="checkbox"]').trigger('click')
    expect(shown.get('[type="submit"]').text()).toBe('Save what was found')
    await shown.get('input[maxlength]').setValue('at the thick end')
    await shown.get('form').trigger('submit')
    await vi.waitFor(() => expect(shown.text()).toContain('Saved in the diary.'))
    expect(calls.at(-1)?.body).toEqual({ found: ['bone'], note: 'at the thick end' })
    expect(shown.get<HTMLInputElement>('input[maxlength]').element.value).toBe('')
  })

  it('says when it could not be kept, and keeps what is ticked', async () => {
    const { given, shown } = await open({ 'POST /batches/J-01/look-overs': null })
    await shown.get('[role="checkbox"]').trigger('click')
    await shown.get('form').trigger('submit')
    await vi.waitFor(() => expect(shown.text()).toContain('No answer came back'))
    expect(shown.get('[type="submit"]').text()).toBe('Save what was found')
    given['POST /batches/J-01/look-overs'] = pieces(['A'])
    await shown.get('[role="alert"] button').trigger('click')
    await vi.waitFor(() => expect(shown.text()).toContain('Saved in the diary.'))
  })
})

describe('sizes and places', () => {
  it('are entered for each piece, and put down beside it', async () => {
    const thick = { inch: '1.6', cm: '4.1' }
    const place = { store: 'Fridge 1', level: 2, slot: 1, text: 'Fridge 1, shelf 2', level_text: 'shelf 2' }
    const result = pieces([], {
      pieces: [piece('A', { thickness: thick, skin: 'on', place }), piece('lot')],
    })
    const calls = server({
      'GET /batches/J-01/pieces': result,
      'GET /map': { stores: [], nowhere: [] },
      'POST /batches/J-01/pieces/lot/facts': result,
    })
    const shown = mount(PieceSizes, { props: { batch: batch() }, global: around() })
    await vi.waitFor(() => expect(shown.findAll('li')).toHaveLength(2))
    expect(shown.findAll('li').map((line) => plain(line.text()))).toEqual([
      'A4.41 lb, 1.6 in thick, skin onFridge 1, shelf 2 Measure',
      'whole4.41 lb, not measuredno place yet Measure',
    ])
    await shown.get('[aria-label="Measure the whole piece"]').trigger('click')
    await shown.get('form input').setValue('14 in')
    await shown.get('form').trigger('submit')
    await vi.waitFor(() => expect(shown.find('form').exists()).toBe(false))
    expect(calls.find((call) => call.method === 'POST')?.body).toMatchObject({ length: '14 in', place: null })
  })
})

describe('the butcher’s test', () => {
  const part = (name: string, lb: string, share: string, is_usable: boolean): Schemas['TestPartOut'] => ({
    name,
    is_usable,
    weight: weight(lb, '1.000'),
    share,
    worth: is_usable ? '17.50' : '2.50',
  })
  const test: Schemas['TestOut'] = {
    bought: weight('10.00', '4.536'),
    paid: '20.00',
    price: cost('2.00', '4.41'),
    parts: [part('lean trim', '1.00', '10.0', false), part('A', '8.00', '80.0', true)],
    lost: weight('1.00', '0.454'),
    lost_share: '10.0',
    usable: weight('8.00', '3.629'),
    usable_share: '80.0',
    usable_price: cost('2.19', '4.82'),
    factor: '1.094',
    next_price: null,
    next_usable: null,
    next_with_same_worth: null,
  }

  it('puts what is usable first, and costs next week’s price by the factor', async () => {
    const given: Record<string, unknown> = { 'POST /batches/J-01/butchers-test': test }
    const calls = server(given)
    const shown = mount(ButchersTest, { props: { batch: batch() }, global: around() })
    await vi.waitFor(() => expect(shown.find('table').exists()).toBe(true))
    const names = shown.findAll('tbody tr').map((line) => line.find('td, th').text())
    expect(names).toEqual(['A', 'lean trim', 'lost, not weighed', 'usable'])
    expect(plain(shown.text())).toContain('1.094')
    given['POST /batches/J-01/butchers-test'] = {
      ...test,
      next_price: cost('3.50', '7.72'),
      next_usable: cost('3.83', '8.44'),
      next_with_same_worth: cost('4.06', '8.95'),
    }
    await shown.get('input').setValue('3.50')
    await vi.waitFor(() => expect(plain(shown.get('[role="status"]').text())).toContain('$3.83'))
    expect(calls.map((call) => call.body)).toEqual([{ price: '' }, { price: '3.50' }])
  })

  it('says why there is none', async () => {
    server({ 'POST /batches/J-01/butchers-test': refused('no_trim', { detail: 'Nothing is trimmed yet.' }) })
    const shown = mount(ButchersTest, { props: { batch: batch() }, global: around() })
    await vi.waitFor(() => expect(shown.text()).toContain('Nothing is trimmed yet.'))
    expect(shown.find('table').exists()).toBe(false)
  })
})

describe('the bench', () => {
  const open = async (under_way: Schemas['SummaryOut'][]) => {
    server({ 'GET /today': { under_way, finished: [], more_under_way: 0, hooks: {} } })
    const shown = mount(BenchIndex, { global: around() })
    await flushPromises()
    await vi.waitFor(() => expect(shown.text()).not.toContain('Loading'))
    return plain(shown.text())
  }

  it('names the next weighing of each batch, and its pieces', async () => {
    const result = await open([summary(), summary({ code: 'J-02', pieces: ['lot'], next: null })])
    expect(result).toContain('J-01 A · B')
    expect(result).toContain('Weigh after the cure')
    const sliced = summary({ next: { kind: 'slice', label: 'Sliced' } })
    expect(await open([sliced])).toContain('Weigh the slices')
    expect(result).toContain('J-02 whole')
  })

  it('begins a batch where there is none', async () => {
    expect(await open([])).toContain('No batches under way. Start one with what you bought.')
  })
})
