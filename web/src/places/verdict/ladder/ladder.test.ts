import { VueQueryPlugin } from '@tanstack/vue-query'
import { flushPromises, mount, RouterLinkStub } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { createMemoryHistory, createRouter } from 'vue-router'
import type { Judged } from '@/shared/api/client'
import { judged, standIn, verdict } from '@/shared/tests/samples'
import HouseOrShop from '@/places/verdict/ladder/HouseOrShop.vue'
import { scaleFor, spreadLabels } from '@/shared/scales/priceScale'
import PriceLadder from '@/places/verdict/ladder/PriceLadder.vue'
import SlabsAtOnce from '@/places/verdict/ladder/SlabsAtOnce.vue'
import { dialsOf, trialOf } from './useTrial'

beforeEach(() => standIn('lb'))
afterEach(() => vi.unstubAllGlobals())
const page = { template: '<p />' }
const router = createRouter({
  history: createMemoryHistory(),
  routes: ['', 'strip', 'log', 'kitchen'].map((name) => ({ path: `/${name}/:code?`, name, component: page })),
})
const components = { RouterLink: RouterLinkStub }
const plain = (text: string): string => text.replace(/\s+/g, ' ')

describe('the scale of prices', () => {
  it('takes all prices in, dearer higher, on round ticks', () => {
    const scale = scaleFor([3.42, 6, 8.65], 26, 534)
    expect(scale.low).toBeLessThanOrEqual(3.42)
    expect(scale.high).toBeGreaterThanOrEqual(8.65)
    expect(scale.at(8.65)).toBeLessThan(scale.at(3.42))
    expect(scale.ticks.length).toBeLessThanOrEqual(10)
    expect(scaleFor([0.12, 0.13], 0, 100).ticks.length).toBeGreaterThan(2)
    expect(scaleFor([0], 0, 100).at(0)).toBe(100)
  })

  it('moves labels apart and keeps them in order and in sight', () => {
    const placed = spreadLabels([100, 104, 108], 40, 0, 500)
    const gaps = placed.slice(1).map((y, index) => y - (placed[index] ?? 0))
    expect(Math.min(...gaps)).toBeGreaterThanOrEqual(40)
    expect(Math.max(...spreadLabels([490, 495], 40, 0, 500))).toBeLessThanOrEqual(500)
  })
})

describe('the ladder', () => {
  type Basis = Judged['bases'][number]
  const [pound, slice] = judged().bases as [Basis, Basis]
  const [rung] = pound.shops as [Basis['shops'][number]]
  const ladder = (basis: Basis, tried: Basis | null = null): string =>
    plain(
      mount(PriceLadder, {
        props: { basis, tried, code: 'J-01', isForecast: false },
        global: { components },
      }).text(),
    )

  it('says how far house and shop are apart, and how sure the scale is', () => {
    expect(ladder(pound)).toContain('$2.58 under the good shop bacon')
    expect(ladder(pound)).toContain('$3.38 to $3.46 from scale error alone')
    const near = { ...pound, shops: [{ ...rung, saved: '-0.02', apart: false }] }
    expect(ladder(near)).toContain('$0.02 over the good shop bacon')
    expect(ladder(near)).toContain('The scale is not fine enough to tell house and shop apart here.')
  })

  it('shows where the house would stand, and the gap from there', () => {
    const tried = { ...pound, price: '3.00', shops: [{ ...rung, saved: '3.00' }] }
    const result = ladder(pound, tried)
    expect(result).toContain('with your changes $3.00')
    expect(result).toContain('$3.00 under the good shop bacon')
  })

  it('says what to record where a basis has no price', () => {
    expect(ladder(slice)).toContain('Count the slices of every piece.')
  })
})

describe('how many slabs', () => {
  const size = judged().size as NonNullable<Judged['size']>
  const result = (more: object): string =>
    plain(
      mount(SlabsAtOnce, {
        props: { judged: judged({ size: { ...size, ...more } }) },
        global: { components },
      }).text(),
    )

  it('says from how many on it undercuts the shop, and where the wall is', () => {
    expect(result({})).toContain('Cheaper than the good shop bacon from 2 slabs up.')
    expect(result({})).toContain('the smoker is full')
    expect(result({ crossings: [9] })).toContain('from 9 slabs up, more than fit.')
    expect(result({ crossings: [null] })).toContain('At any number it costs more')
    expect(result({ wall: null, wall_is: null })).toContain('Set how many slabs fit')
  })
})

describe('what if', () => {
  it('sends only what differs from the record', () => {
    const was = dialsOf(verdict(), 'lb')
    const now = { ...was, tag: '2.50', yields: { smoke: '90.0' }, policy: { ...was.policy, fuel: false } }
    expect(trialOf(now, was, verdict(), 'lb')).toMatchObject({
      tag: '2.50',
      yields: { smoke: '90.0' },
      minutes: '',
      portion: null,
      shops: [''],
      policy: { fuel: false },
    })
    expect(trialOf({ ...was, portion: '4' }, was, verdict(), 'lb').portion).toMatchObject({ slices: '4' })
  })

  it('tries a dial at once, tells before and after, and goes back to the record', async () => {
    const after = judged({
      house: { ...judged().house, unit_cost: { per_lb: '3.60', per_kg: '7.94' } },
    })
    const fetch = vi.fn(() => Promise.resolve(Response.json({ judged: after, strip: null, problems: [] })))
    vi.stubGlobal('fetch', fetch)
    const shown = mount(HouseOrShop, {
      props: { verdict: verdict() },
      global: { plugins: [VueQueryPlugin, router] },
    })
    await shown.getComponent({ name: 'SlideBar' }).setValue(2.4)
    await vi.waitFor(() => expect(plain(shown.text())).toContain('a sliced pound $3.42 → becomes $3.60'))
    expect(shown.text()).toContain('was 2.00')
    const buttons = shown.findAll('button').filter((one) => one.text() === 'Reset')
    await buttons[0]?.trigger('click')
    await flushPromises()
    expect(shown.text()).not.toContain('was 2.00')
    expect(fetch).toHaveBeenCalledTimes(1)
  })
})
