import { mount } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Schemas } from '@/shared/api/client'
import { marksText } from '@/shared/parts/marksText'
import { standIn } from '@/shared/tests/samples'
import { around } from '@/shared/tests/server'
import { endsOf, placeDots, ticksOf } from './yields/dots'
import SavedLine from './SavedLine.vue'
import YieldDots from './yields/YieldDots.vue'

const push = vi.fn()
vi.mock('vue-router', async (real) => ({
  ...(await real<object>()),
  useRouter: () => ({ push }),
}))

beforeEach(() => {
  standIn('lb')
  push.mockClear()
})
afterEach(() => vi.unstubAllGlobals())

const price = { per_lb: '7.06', per_kg: '15.57' }
const dot = (code: string, kept: string, is_last = false): Schemas['YieldDotOut'] => ({
  ...{ code, name: 'Jowl', at: '2026-11-02T10:00:00Z', kept, price, is_last },
})
const sort = (
  dots: Schemas['YieldDotOut'][],
  low: string | null,
  high: string | null,
): Schemas['SortOut'] => ({
  key: 'jowl',
  label: 'jowl skin on · dry rub',
  cut: 'jowl',
  way: 'dry rub',
  unsaid: 0,
  forecast: null,
  parts: [
    {
      label: '',
      dots,
      spread: {
        ...{ batches: dots.length, middle: '60.7', low, high },
        ...{ deviation: '1.7', scale: '0.1', own: '1.6', price },
      },
    },
  ],
})

describe('dots', () => {
  it('lie on a scale of whole fives that holds them and their band', () => {
    expect(endsOf([sort([dot('A', '58.2'), dot('B', '63.5')], '56.1', '66.0')])).toEqual([55, 70])
    expect(endsOf([sort([dot('A', '98.2')], '96', '99.9')])).toEqual([95, 100])
    expect(endsOf([sort([dot('A', '112.0')], null, null)])).toEqual([110, 115])
    expect(endsOf([])).toEqual([0, 100])
    expect(ticksOf([55, 70])).toEqual([55, 60, 65, 70])
    expect(ticksOf([0, 100])).toEqual([0, 20, 40, 60, 80, 100])
  })

  it('move aside for those they would cover, and only for those', () => {
    const placed = placeDots(
      [dot('A', '60'), dot('B', '60.1'), dot('C', '60.2'), dot('D', '70')],
      (x) => 10 * x,
      7,
    )
    expect(placed.map((one) => one.aside)).toEqual([0, -1, 1, 0])
  })

  it('open their batch, and say what they are', async () => {
    const shown = mount(YieldDots, {
      props: { sorts: [sort([dot('H-01', '60.0'), dot('J-01', '62.0', true)], '58.0', '63.5')] },
      global: around(),
    })
    expect(shown.find('svg.line').attributes('aria-label')).toBe(
      '2 batches, middle 60.7 %, 8 in 10 between 58.0 and 63.5 %',
    )
    expect(shown.text()).toContain('spread ± 1.7 points, of it the scale ± 0.1')
    expect(shown.findAll('.dot.last')).toHaveLength(1)
    await shown.findAll('g.hit')[1]?.trigger('click')
    expect(push).toHaveBeenCalledWith({ name: 'strip', params: { code: 'J-01' } })
  })

  it('have no band where there are too few', () => {
    const shown = mount(YieldDots, {
      props: { sorts: [sort([dot('A', '60')], null, null)] },
      global: around(),
    })
    expect(shown.text()).toContain('too few for a band')
    expect(shown.find('rect[fill="#F6DEE2"]').exists()).toBe(false)
  })
})

describe('what a year saved', () => {
  const points = [
    {
      at: '2026-02-01T10:00:00Z',
      code: 'P-01',
      batches: 1,
      saved: '13.00',
      sum: '13.00',
      sum_without_work: '20.00',
    },
    {
      at: '2026-05-01T10:00:00Z',
      code: 'P-02',
      batches: 1,
      saved: '-20.50',
      sum: '-7.50',
      sum_without_work: '1.00',
    },
  ]

  it('names the batch that lost most, and ends with the sum', async () => {
    const shown = mount(SavedLine, { props: { points, year: 2026 }, global: around() })
    expect(shown.find('.worst').text()).toBe('P-02 lost $20.50')
    expect(shown.find('.sum').text()).toBe('−$7.50')
    expect(shown.find('.sum').classes()).toContain('dear')
    await shown.findAll('g.hit')[0]?.trigger('click')
    expect(push).toHaveBeenCalledWith({ name: 'strip', params: { code: 'P-01' } })
  })

  it('of nothing is a line', () => {
    const shown = mount(SavedLine, { props: { points: [], year: 2026 }, global: around() })
    expect(shown.find('.sum').exists()).toBe(false)
    expect(shown.find('svg').attributes('aria-label')).toBe('nothing yet')
  })
})

describe('marks of many pieces', () => {
  it('are listed while few, and counted beyond', () => {
    expect(marksText(['lot'])).toBe('')
    expect(marksText(['A', 'B1'])).toBe('A · B1')
    const many = Array.from({ length: 60 }, (_, at) => `P${at + 1}`)
    expect(marksText(many)).toBe('60 pieces, P1 to P60')
  })
})
