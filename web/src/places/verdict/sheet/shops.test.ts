import { mount, RouterLinkStub } from '@vue/test-utils'
import { beforeEach, describe, expect, it } from 'vitest'
import { batch, column, cost, shop, standIn, verdict, weight } from '@/shared/tests/samples'
import CustomersShare from './CustomersShare.vue'
import TakeAway from './TakeAway.vue'
import WhoseMeat from './WhoseMeat.vue'
import AcrossDrawing from '@/shared/strip/AcrossDrawing.vue'
import ColumnDetail from '@/shared/strip/ColumnDetail.vue'
import StripAcross from '@/shared/strip/StripAcross.vue'
import StripDown from '@/shared/strip/StripDown.vue'
import { colourOf, colourOfPart } from '@/shared/strip/materials'

beforeEach(() => standIn('lb'))
const components = { RouterLink: RouterLinkStub }
const plain = (text: string): string => text.replace(/\s+/g, ' ')

const kinds = [
  shop({ entry: 1, name: 'best kind', unit_cost: cost('9.40', '20.72') }),
  shop({ entry: 2, name: 'good kind', unit_cost: cost('9.10', '20.06') }),
  shop({ entry: 3, name: 'cheap kind', unit_cost: cost('4.30', '9.48') }),
]
const source = {
  lot: 'lot',
  batch: 'J-01',
  name: 'Cherry jowl',
  piece: 'C1',
  weight: weight('2.00', '0.907'),
  carried: '14.41',
  carried_then: '12.00',
  has_changed: true,
}

describe('the shop’s kinds on the strip', () => {
  const drawn = (shown = batch({ shops: kinds })) =>
    mount(AcrossDrawing, { props: { batch: shown, pitch: 120, count: 3, chosen: null } })

  it('are level lines, each named with its price', () => {
    const text = drawn().text()
    for (const words of ['best kind 9.40', 'good kind 9.10', 'cheap kind 4.30']) expect(text).toContain(words)
    expect(drawn().findAll('line[stroke-dasharray]')).toHaveLength(3)
  })

  it('have names that do not run into one another where their lines are close', () => {
    const heights = drawn()
      .findAll('text.shop')
      .map((one) => Number(one.attributes('y')))
      .sort((one, other) => one - other)
    const gaps = heights.slice(1).map((y, index) => y - (heights[index] ?? 0))
    expect(Math.min(...gaps)).toBeGreaterThan(12)
  })

  it('are put in words below the strip of a phone', () => {
    const shown = mount(StripDown, { props: { batch: batch({ shops: kinds }), width: 370, chosen: null } })
    expect(plain(shown.text())).toContain('cheap kind, 4.30 a pound; good kind, 9.10 a pound; best kind')
  })
})

describe('a thin ribbon', () => {
  it('has its weights above it, in ink', () => {
    const thin = column('slice', 'Sliced', {
      weight_in: weight('8.00', '3.629'),
      weight_out: weight('1.00', '0.454'),
    })
    const shown = batch()
    shown.strip = { ...shown.strip, columns: [...shown.strip.columns, thin] }
    const drawing = mount(AcrossDrawing, { props: { batch: shown, pitch: 120, count: 3, chosen: null } })
    expect(drawing.findAll('text.weight.above')).toHaveLength(3)
    expect(drawing.get('svg').attributes('viewBox')).toMatch(/^0 -42 /)
    const thick = mount(AcrossDrawing, { props: { batch: batch(), pitch: 120, count: 3, chosen: null } })
    expect(thick.findAll('text.weight.above')).toHaveLength(0)
  })
})

describe('meat of another batch', () => {
  it('is named at the head of the strip, and shown with what changed since', () => {
    const head = mount(StripAcross, {
      props: { batch: batch({ sources: [source] }), width: 900, chosen: null },
    })
    expect(plain(head.text())).toContain('C1 of J-01')
    const result = mount(ColumnDetail, {
      props: { column: column('bought', 'Bought'), sources: [source], place: null },
      global: { components },
    })
    expect(plain(result.text())).toContain('2.00 lb (0.907 kg) of it is C1 of J-01 Cherry jowl')
    expect(plain(result.text())).toContain('brought $14.41 along, $12.00 on the day it was taken')
  })

  it('is linked both ways', () => {
    const takers = [{ batch: 'S-01', name: 'Sausage', piece: 'A1' }]
    const shown = mount(WhoseMeat, {
      props: { batch: batch({ sources: [source] }), verdict: verdict({ takers }) },
      global: { components },
    })
    expect(plain(shown.text())).toContain('J-01 was corrected since: it carried $12.00')
    expect(plain(shown.text())).toContain('A1 went into S-01 Sausage')
    const none = mount(WhoseMeat, { props: { batch: batch(), verdict: verdict() }, global: { components } })
    expect(none.find('section').exists()).toBe(false)
  })

  it('that came together is said of its column', () => {
    const mixed = column('mix', 'Mixed', { came_together: true })
    const result = mount(ColumnDetail, {
      props: { column: mixed, sources: [], place: 1 },
      global: { components },
    })
    expect(plain(result.text())).toContain('came together')
  })
})

it('takes the batch away in four forms', async () => {
  const shown = mount(TakeAway, { props: { code: 'J-01' } })
  expect(shown.find('a').exists()).toBe(false)
  await shown.get('button').trigger('click')
  const links = shown.findAll('a').map((link) => link.attributes('href'))
  expect(links).toEqual(
    ['pdf', 'xlsx', 'csv', 'json'].map((form) => `/api/kitchens/test/batches/J-01/files/${form}`),
  )
  expect(shown.get('a').attributes('download')).toBe('J-01.pdf')
})

it('gives every material and part of the bill a colour of its own, and strangers one too', () => {
  const materials = ['lean', 'fat', 'skin', 'bone', 'water', 'ends', 'pieces', 'discard']
  expect(new Set(materials.map(colourOf)).size).toBe(materials.length)
  expect(colourOf('tofu')).toBe(colourOf('other'))
  expect(colourOfPart('meat', 'meat as bought')).toBe(colourOf('lean'))
  expect(colourOfPart('group', 'work')).not.toBe(colourOfPart('group', 'fuel'))
  expect(colourOfPart('group', 'herbs')).toBe(colourOf('other'))
})

describe('a batch shared with customers', () => {
  const share = (more = {}) =>
    plain(
      mount(CustomersShare, {
        props: {
          code: 'J-01',
          shops: kinds,
          yours: {
            pieces: 2,
            weight: weight('3.00', '1.361'),
            unit_cost: cost('5.10', '11.24'),
            customers_pieces: 1,
            customers_weight: weight('1.50', '0.680'),
            saved: ['12.90', '-2.40', null],
            ...more,
          },
        },
        global: { components },
      }).text(),
    )

  it('says what is the kitchen’s own, at what price, and what that saved', () => {
    const text = share()
    expect(text).toContain('1 piece here, 1.50 lb, is a customer’s.')
    expect(text).toContain('Yours: 2 pieces, 3.00 lb, at $5.10 a pound. The books count these alone.')
    expect(text).toContain('$12.90 less than the best kind')
    expect(text).toContain('$2.40 more than the good kind')
    expect(text).not.toContain('cheap kind')
  })

  it('says that nothing is saved where all of it is theirs', () => {
    const text = share({ pieces: 0, unit_cost: null, customers_pieces: 3, saved: [null] })
    expect(text).toContain('3 pieces here, 1.50 lb, are customers’.')
    expect(text).toContain('None of it is yours')
    expect(text).not.toContain('Yours:')
  })
})
