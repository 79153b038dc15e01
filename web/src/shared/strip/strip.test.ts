import { mount, RouterLinkStub } from '@vue/test-utils'
import { beforeEach, describe, expect, it } from 'vitest'
import { batch, column, shop, standIn, weight } from '@/shared/tests/samples'
import ColumnDetail from './ColumnDetail.vue'
import StripAcross from './StripAcross.vue'
import StripDown from './StripDown.vue'

beforeEach(() => standIn('lb'))

const show = (component: object, shown = batch(), width = 900) =>
  mount(component, { props: { batch: shown, width, chosen: null }, attachTo: document.body })

describe('the strip across the page', () => {
  it('is a table that can be heard: a head for each step, weight and price, four rows of the ledger', () => {
    const strip = show(StripAcross, batch({ shops: [shop()] }))
    expect(strip.findAll('th').map((head) => head.text())).toEqual([
      'Bought2 Mar',
      'Trimmed2 Mar',
      'Smokedto come, or skip',
    ])
    expect(strip.text()).toContain('8.00 lb left, 2.94 a pound')
    const rows = strip.findAll('tr.ledger').map((row) => row.findAll('td').map((cell) => cell.text()))
    expect(rows).toEqual([
      ['of this step –', 'of this step 80.0 %', ''],
      ['of bought all', 'of bought 80.0 %', ''],
      ['spent 6.00', 'spent 6.00', ''],
      ['credit for trim –', 'credit for trim −2.50', ''],
    ])
    expect(strip.find('svg').text()).toContain('good shop bacon 8.00')
    expect(strip.find('svg').text()).toContain('lean trim 1.00')
  })

  it('scrolls as a region that takes the focus, only where it does not fit', () => {
    expect(show(StripAcross).find('[role="region"]').exists()).toBe(false)
    expect(show(StripAcross, batch(), 200).find('[role="region"]').attributes('tabindex')).toBe('0')
  })

  it('is walked by arrows, one stop for the tabulator', async () => {
    const strip = show(StripAcross, batch(), 200)
    const [bought, trimmed] = strip.findAll('button')
    expect([bought?.attributes('tabindex'), trimmed?.attributes('tabindex')]).toEqual(['-1', '0'])
    ;(trimmed?.element as HTMLElement).focus()
    await trimmed?.trigger('keydown', { key: 'ArrowLeft' })
    expect(document.activeElement).toBe(bought?.element)
    expect(strip.emitted('update:chosen')?.at(-1)).toEqual([0])
  })

  it('keeps a figure clear of the shop’s line', () => {
    const near = batch({ shops: [shop({ unit_cost: { per_lb: '3.30', per_kg: '7.28' } })] })
    const priceY = (strip: ReturnType<typeof show>): number =>
      Number(strip.findAll('text.price').at(-1)?.attributes('y'))
    const far = batch({ shops: [shop({ unit_cost: { per_lb: '3.05', per_kg: '6.72' } })] })
    expect(priceY(show(StripAcross, near))).toBeGreaterThan(priceY(show(StripAcross, batch())))
    expect(priceY(show(StripAcross, far))).not.toBeNaN()
  })
})

describe('the strip down a phone', () => {
  it('says by step what is left, kept and came off, and what is to come', () => {
    const strip = show(StripDown, batch({ shops: [shop()] }), 370)
    expect(strip.findAll('li')).toHaveLength(2)
    expect(strip.text()).toContain('80.0 % kept')
    expect(strip.text()).toContain('2 kinds off')
    expect(strip.text()).toContain('Dashed: good shop bacon, 8.00 a pound')
    expect(strip.text()).toContain('To come, or skip: smoked')
  })

  it('names the one thing that came off or on', () => {
    const water = { material: 'water', name: 'water', carried: null }
    const shown = batch()
    shown.strip.columns[1] = column('cure', 'Cured', {
      peels: [{ ...water, weight: weight('0.28', '0.127'), gain: true }],
    })
    expect(show(StripDown, shown, 370).text()).toContain('water +.28')
  })
})

describe('what a column tells', () => {
  it('says where its weight and money went, in both units', () => {
    const result = mount(ColumnDetail, {
      global: { components: { RouterLink: RouterLinkStub } },
      props: { sources: [], place: null, column: batch().strip.columns[1] ?? column('x', 'X') },
    })
    const text = result.text().replace(/\s+/g, ' ')
    expect(text).toContain('10.00 lb (4.536 kg) → 8.00 lb (3.629 kg)')
    expect(text).toContain('lean trim 1.00 lb (0.454 kg), worth $2.50')
    expect(text).toContain('Spent $6.00, credit for trim $2.50.')
    expect(text).toContain('A pound then cost $2.94 ($6.48 a kilogram).')
  })
})
