import { flushPromises, mount } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { standIn } from '@/shared/tests/samples'
import { around, server } from '@/shared/tests/server'
import PracticeEnd from './PracticeEnd.vue'
import PracticePlace from './PracticePlace.vue'
import type { PracticeVerdict } from './usePractice'

const push = vi.fn()
vi.mock('vue-router', () => ({ useRouter: () => ({ push }) }))
beforeEach(() => {
  standIn('lb')
  localStorage.clear()
})
afterEach(() => vi.unstubAllGlobals())

const weight = (lb: string) => ({ g: '1', kg: '1', lb, oz: '1' }) as unknown as PracticeVerdict['weight']
const cost = (per_lb: string) => ({ per_lb, per_kg: '1' }) as unknown as PracticeVerdict['price']
const verdict: PracticeVerdict = {
  weight: weight('7.88'),
  best_weight: weight('8.04'),
  lost: weight('0.16'),
  price: cost('8.30'),
  best_price: cost('8.14'),
  money: '1.11',
  out_seconds: 19_800,
  best_seconds: 15_360,
  late_seconds: 2_040,
  peak: '152',
  is_cooked: true,
  caught: [
    { kind: 'fire_out', text: 'The fire went out.', after_seconds: 840, is_caught: true, next_time: 'Look.' },
    { kind: 'fat', text: 'It slipped.', after_seconds: null, is_caught: false, next_time: 'Check by hand.' },
    {
      kind: 'late',
      text: 'It came after the meal.',
      after_seconds: null,
      is_caught: false,
      next_time: 'Begin.',
    },
  ],
}

describe('practice', () => {
  it('lights a fire as fast as chosen', async () => {
    const calls = server({
      'GET /practice': {
        lessons: [{ key: 'belly', name: 'A belly', why: 'Keep the fire.', hours: '4.1' }],
        runs: [],
      },
      'POST /practice': { id: 7 },
    })
    const page = mount(PracticePlace, { global: around() })
    await flushPromises()
    await page.get('select').setValue('600')
    await page.get('article button').trigger('click')
    await flushPromises()
    expect(calls.at(-1)?.body).toEqual({ lesson: 'belly', speed: 600 })
    expect(push).toHaveBeenCalledWith({ name: 'practice-run', params: { id: 7 } })
  })

  it('says what it cost beside the best, what was caught and when, and what to watch next time', () => {
    const text = mount(PracticeEnd, { props: { verdict, unit: 'F' }, global: around() }).text()
    expect(text).toContain('0.16 lb and $1.11 lost')
    expect(text).toContain('5 h 30')
    expect(text).toContain('The fire went out. Caught after 14 min.')
    expect(text).not.toContain('Look.')
    expect(text).toContain('It slipped. Not caught. Next time: Check by hand.')
    expect(text).toContain('34 min after the meal')
  })

  it('praises what lost nothing', () => {
    const caught = verdict.caught.slice(0, 1)
    const good = { ...verdict, lost: null, money: '0.00', late_seconds: 0, caught }
    const text = mount(PracticeEnd, { props: { verdict: good, unit: 'F' }, global: around() }).text()
    expect(text).toContain('Well cooked')
    expect(text).toContain('Nothing lost')
    expect(text).not.toContain('after the meal')
  })
})
