import { flushPromises, mount } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { standIn } from '@/shared/tests/samples'
import { around, server } from '@/shared/tests/server'
import { bodyOf, type Board, type Cutting } from './board/useBoard'
import SlabDrawing from './board/SlabDrawing.vue'
import PlateBars from './dishes/PlateBars.vue'
import StackColumn from './larder/StackColumn.vue'
import TakeForm from './larder/TakeForm.vue'
import ThawTonight from './larder/ThawTonight.vue'
import type { Larder, Pack, Stack } from './useLarder'

beforeEach(() => {
  standIn('lb')
  localStorage.clear()
})
afterEach(() => vi.unstubAllGlobals())

const weight = (lb: string) => ({ lb, kg: '0.25' })
const pack = (more: Partial<Pack> = {}): Pack => ({
  code: 'J-01',
  batch_name: 'Jowl',
  mark: 'P1',
  product: 'Cherry jowl',
  form: 'slices',
  piece: 'A1',
  made: weight('0.58'),
  left: weight('0.58'),
  slices: 10,
  left_slices: 10,
  cost: '4.10',
  left_cost: '4.10',
  packed_at: '2026-11-20T10:00:00Z',
  state: 'frozen',
  store: 'Freezer',
  keep_until: '2026-12-20',
  is_past: false,
  is_past_best: false,
  is_soon: false,
  is_raw: false,
  is_gone: false,
  owner: '',
  ...more,
})
const stack = (more: Partial<Stack> = {}): Stack => ({
  product: 'Cherry jowl',
  owner: '',
  packs: [pack()],
  more: 0,
  count: 1,
  weight: weight('0.58'),
  slices: 10,
  cost: '4.10',
  lasts: 3,
  use_by: '2026-12-20',
  ...more,
})
const board = (more: Partial<Board> = {}): Board => ({
  code: 'J-01',
  name: 'Jowl',
  cut: 'jowl',
  seen: 6,
  pieces: [
    {
      mark: 'A',
      label: 'A',
      weight: weight('4.80'),
      grams: '2177.24',
      unit_cost: null,
      cost: '30.00',
      length_mm: null,
      free_marks: ['A1', 'A2'],
      is_finished: false,
      slices: null,
    },
  ],
  packs: [],
  unpacked: [],
  product: 'Jowl',
  products: [],
  stores: [],
  portion_slices: '3',
  next_mark: 'P1',
  cautions: [],
  ...more,
})
const cutting = (more: Partial<Cutting> = {}): Cutting => ({
  piece: 'A',
  products: [
    { mark: 'A1', name: 'Jowl', form: 'slices', weight: '', slices: '' },
    { mark: 'A2', name: 'Jowl, dice', form: 'dice', weight: '0.9 lb', slices: '' },
  ],
  packs: [
    { product: 0, weight: '0.58 lb', slices: '10', store: 'Freezer' },
    { product: 1, weight: '0.4 lb', slices: '', store: '' },
  ],
  cutOff: [
    { name: 'ends', weight: '0.3 lb', worth: 'price', price: '3.00/lb' },
    { name: 'skin', weight: '', worth: 'nothing', price: '' },
  ],
  minutes: '12',
  bagPrice: '0.35',
  millimetres: '',
  inPack: '10',
  ...more,
})

describe('the board', () => {
  it('records a slicing and its packs in one body, what has no weight left out', () => {
    const body = bodyOf(cutting(), board(), true)
    expect(body.seen).toBe(6)
    expect(body.packs?.map((one) => [one.piece, one.product, one.slices])).toEqual([
      ['A1', 'Jowl', '10'],
      ['A2', 'Jowl, dice', ''],
    ])
    expect(body.split?.cut_off?.map((one) => one.name)).toEqual(['ends'])
    expect(body.split?.used).toEqual([
      { what: 'bags', group: 'packaging', amount: '2', price: '0.35 each', pieces: [] },
    ])
    expect(body.split?.pieces[1]?.weight).toBe('0.9 lb')
  })

  it('packs a piece that is finished already without cutting it again', () => {
    const done = board()
    const [piece] = done.pieces
    const finished = { ...done, pieces: piece ? [{ ...piece, is_finished: true }] : [] }
    const body = bodyOf(cutting(), finished, false)
    expect(body.split).toBeNull()
    expect(body.packs?.map((one) => one.piece)).toEqual(['A', 'A'])
  })

  it('charges no bags where no price of one is known', () => {
    expect(bodyOf(cutting({ bagPrice: '' }), board(), true).split?.used).toEqual([])
  })

  it('draws how far the knife has come', () => {
    const drawn = mount(SlabDrawing, { props: { cut: 29, toGo: 20, perSlice: '', left: '', right: '' } })
    expect(drawn.text()).toContain('29 cut, about 20 to go')
    const fresh = mount(SlabDrawing, { props: { cut: 0, toGo: null, perSlice: '', left: '', right: '' } })
    expect(fresh.text()).toContain('nothing cut yet')
  })
})

describe('the larder', () => {
  it('says of a stack how much, how long and until when, in the right number', () => {
    const packs = [pack({ left_slices: 1, state: 'open' }), pack({ mark: 'P2', is_raw: true })]
    const shown = mount(StackColumn, {
      props: { stack: stack({ packs, count: 2, more: 3, lasts: 0 }) },
      global: around(),
    })
    expect(shown.text()).toContain('1 slice')
    expect(shown.text()).not.toContain('1 slices')
    expect(shown.text()).toContain('lasts less than a day')
    expect(shown.text()).toContain('use by 20 Dec')
    expect(shown.text()).toContain('and 3 more')
    expect(shown.text()).toContain('raw: cook before eating')
  })

  it('tells what is past its use-by date from what is only past its best', () => {
    const under = (more: object) => {
      const packs = [pack({ keep_until: '2026-11-03', ...more })]
      return mount(StackColumn, {
        props: { stack: stack({ packs, use_by: '2026-11-03' }) },
        global: around(),
      })
    }
    expect(under({ is_past: true }).text()).toContain('past its use-by date, 3 Nov')
    expect(under({ is_past_best: true }).text()).toContain('best before 3 Nov')
    expect(under({ is_past_best: true }).find('a').attributes('aria-label')).toContain('best before 3 Nov')
  })

  it('moves all that is to thaw into the fridge in one touch, kept on the device first', async () => {
    const calls = server({ 'POST /packs/J-01/P5/moves': {}, 'POST /packs/J-01/P6/moves': {} })
    const larder = {
      thaw: [
        { code: 'J-01', mark: 'P5', product: 'Cherry jowl' },
        { code: 'J-01', mark: 'P6', product: 'Cherry jowl' },
      ],
      thaw_why: 'because',
      past: 1,
      shelves: [{ store: 'Fridge 1', sort: 'fridge', stacks: [] }],
    } as unknown as Larder
    const shown = mount(ThawTonight, { props: { larder }, global: around() })
    expect(shown.text()).toContain('2 Cherry jowl')
    expect(shown.text()).toContain('1 pack is past its best')
    await shown.get('button').trigger('click')
    await flushPromises()
    await vi.waitFor(() => expect(calls.length).toBe(2))
    expect(calls.map((one) => (one.body as { store: string }).store)).toEqual(['Fridge 1', 'Fridge 1'])
    expect(new Set(calls.map((one) => one.key)).size).toBe(2)
    expect(shown.get('button').attributes('disabled')).toBeDefined()
  })

  it('asks what was sold for, and which batch it went into', async () => {
    const sold = mount(TakeForm, { props: { fate: 'sold', what: '3 slices', batches: [] } })
    await sold.findAll('input')[1]?.setValue('4.50')
    await sold.get('form').trigger('submit')
    expect(sold.emitted('take')).toEqual([[{ why: '', income: '4.50' }]])
    const used = mount(TakeForm, { props: { fate: 'used', what: 'all', batches: ['S-02'] } })
    await used.get('select').setValue('S-02')
    await used.get('form').trigger('submit')
    expect(used.emitted('take')).toEqual([[{ into: 'S-02' }]])
  })
})

describe('a plate', () => {
  it('is a bar of its parts on one scale with the shop’s', () => {
    const parts = [
      {
        sort: 'larder' as const,
        name: 'Jowl',
        amount: '3 slices',
        cost: '1.00',
        basis: 'J-01 P1',
        is_raw: true,
      },
      { sort: 'own' as const, name: 'Rye', amount: '', cost: '1.00', basis: 'as typed', is_raw: false },
    ]
    const bars = [
      { name: 'our own', parts: ['1.00', '1.00'], cost: '2.00', leaves: null },
      { name: 'shop', parts: ['3.00', '1.00'], cost: '4.00', leaves: null },
    ]
    const shown = mount(PlateBars, { props: { parts, bars } })
    const widths = shown
      .findAll('.bar span')
      .map((one) => Math.round(10 * parseFloat((one.element as HTMLElement).style.width)))
    expect(widths).toEqual([205, 205, 615, 205])
    expect(shown.text()).toContain('$4.00')
  })
})
