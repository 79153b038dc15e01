import { enableAutoUnmount, flushPromises, mount } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { standIn } from '@/shared/tests/samples'
import { around, plain, refused, server } from '@/shared/tests/server'
import PlanJobs from '@/places/today/PlanJobs.vue'
import PlanPlace from './PlanPlace.vue'
import PlanSide from './PlanSide.vue'
import PlansPlace from './PlansPlace.vue'
import { blankMeal, dayAhead, isAskable, type Meal, type Meals } from './useMeals'

enableAutoUnmount(afterEach)
beforeEach(() => {
  standIn('lb')
  localStorage.clear()
})
afterEach(() => vi.unstubAllGlobals())

const lb = (weight: string) => ({ lb: weight, kg: '0.000' })
const buy: NonNullable<Meal['buy']> = {
  even: lb('13.74'),
  sure: lb('15.20'),
  buy: lb('18.00'),
  packs: 3,
  by: '2026-12-02',
  is_too_late: false,
  cost: '51.30',
  over: lb('2.60'),
  over_plates: '14 more plates of Harbor roll',
  odds: [
    { grams: 5000, part: 0.01 },
    { grams: 6000, part: 1 },
    { grams: 7000, part: 0.01 },
  ],
  least: lb('11.21'),
  most: lb('16.84'),
  even_grams: 6000,
  sure_grams: 8165,
  chance: '99.9',
}
const meal = (more: Partial<Meal> = {}): Meal => ({
  needed: [{ product: 'Cherry jowl', wanted: lb('10.62'), here: lb('2.25'), short: lb('8.37') }],
  buy,
  plates: [
    {
      dish: 'Harbor roll',
      plates: '60',
      low: '2.42',
      high: '2.56',
      food_low: '25.5',
      food_high: '26.9',
      leave_low: '416.63',
      leave_high: '424.89',
    },
  ],
  jobs: [
    {
      kind: 'trim',
      words: 'Trim',
      starts: '2026-12-02T08:16:00Z',
      hands_end: '2026-12-02T08:36:00Z',
      ends: '2026-12-02T08:36:00Z',
      minutes: 20,
      spare_hours: 0,
      store: '',
      is_too_long: false,
    },
  ],
  latest_start: '2026-12-02T08:16:00Z',
  later: 'A day later it is ready Sat 12 Dec, 19:38, 1 hour after the meal.',
  work_minutes: 111,
  cost: '85.80',
  lanes: [{ name: 'Smoker', sort: 'smoker', slots: 4, bars: [] }],
  first: '2026-11-27T00:00:00Z',
  days: 17,
  meal_at: '2026-12-12T19:00:00Z',
  clashes: [],
  ways_out: [],
  shopping: [
    { what: 'leaves', needed: '', here: '', buy: '5.79 lb', cost: '28.88' },
    { what: 'pellets', needed: '6.00 lb', here: '27.50 lb', buy: '', cost: null },
    { what: 'juniper', needed: '21 g', here: 'not counted', buy: '21 g', cost: '0.65' },
  ],
  missing: [],
  problems: [],
  ...more,
})
const side = (more: Partial<Meal> = {}) => mount(PlanSide, { props: { plan: meal(more) }, global: around() })

describe('beside a plan', () => {
  it('says what to buy by when, what a plate will cost and what to fetch', () => {
    const text = plain(side().text())
    for (const words of [
      'Buy by Wednesday 2 December',
      '3 packs, 18.00 lb',
      '$51.30 of meat. About 2.60 lb stay over for the larder: 14 more plates of Harbor roll.',
      'It fits.',
      'A plate will cost$2.42 to $2.56',
      'Food cost26 % to 27 %',
      '60 leave$416.63 to $424.89',
      'Work in all1 h 51',
      'pellets 6.00 lb, 27.50 lb here✓',
      'juniper 21 g, not counted here21 g',
    ])
      expect(text).toContain(words)
  })

  it('offers what can be done where it does not fit, each with its price, and takes none by itself', async () => {
    const clash = { store: 'Smoker', begins: '', ends: '', words: 'Smoker: 2 places too few on 10 Dec.' }
    const input = { ...blankMeal(), loads: 2 }
    const ways_out = [
      { words: 'Smoke it in two loads', price: '13.05', input },
      { words: 'Begin 1 day earlier', price: '0.00', input },
      { words: 'Make 75 % of it', price: '', input },
    ]
    const shown = side({ clashes: [clash], ways_out })
    const text = plain(shown.text())
    expect(text).toContain('Smoke it in two loads, $13.05 more')
    expect(text).toContain('Begin 1 day earlier, costs nothing')
    expect(text).not.toContain('It fits')
    expect(shown.emitted('take')).toBeUndefined()
    await shown.find('button').trigger('click')
    expect(shown.emitted('take')).toEqual([[input]])
    expect(plain(side({ clashes: [clash] }).text())).toContain('Nothing of what can be tried here')
  })

  it('says that it is too late, and that there is nothing to buy', () => {
    expect(plain(side({ buy: { ...buy, is_too_late: true, packs: null } }).text())).toContain(
      'Had to be bought by Wednesday 2 December',
    )
    expect(plain(side({ buy: null, jobs: [] }).text())).toContain('Nothing to buy')
  })
})

const meals = (more: Partial<Meals> = {}): Meals => ({
  meals: [],
  dishes: ['Harbor roll'],
  products: ['Cherry jowl'],
  ways: ['Dry cure'],
  meats: ['jowl'],
  jobs: [],
  ...more,
})

describe('a plan', () => {
  it('is worked out as it is typed, and saved as it was', async () => {
    vi.useFakeTimers({ shouldAdvanceTime: true })
    const calls = server({
      'GET /meals': meals(),
      'POST /previews/meals': meal(),
      'POST /meals': refused('bad_fields', {
        fields: [{ path: 'day', code: 'odd_time', message: 'That day has gone by.' }],
      }),
    })
    const shown = mount(PlanPlace, { props: { name: '' }, global: around() })
    await flushPromises()
    const type = async (label: string, value: string): Promise<void> => {
      const field = shown.findAll('label').find((one) => one.text().startsWith(label))
      await field?.find('input, select').setValue(value)
    }
    await type('Name', 'Saturday')
    await type('Dish', 'Harbor roll')
    await type('Plates', '60')
    expect(calls.some((call) => call.path === '/previews/meals')).toBe(false)
    await type('Method', 'Dry cure')
    await vi.advanceTimersByTimeAsync(400)
    await flushPromises()
    expect(plain(shown.text())).toContain('3 packs, 18.00 lb')
    expect(plain(shown.text())).toContain('20 min')
    await shown
      .findAll('button')
      .find((one) => one.text() === 'A day later')
      ?.trigger('click')
    await shown
      .findAll('button')
      .find((one) => one.text() === 'Save the plan')
      ?.trigger('click')
    await flushPromises()
    const sent = calls.find((call) => call.path === '/meals' && call.method === 'POST')
    expect(sent?.body).toMatchObject({ name: 'Saturday', way: 'Dry cure', day: dayAhead(15) })
    expect(plain(shown.text())).toContain('That day has gone by.')
    vi.useRealTimers()
  })

  it('can be worked out once it is said what, when and how', () => {
    const wants = [{ sort: 'dish' as const, name: 'Harbor roll', amount: '4' }]
    expect(isAskable({ ...blankMeal(), wants, way: 'Dry cure' })).toBe(true)
    expect(isAskable({ ...blankMeal(), way: 'Dry cure' })).toBe(false)
    expect(isAskable({ ...blankMeal(), wants })).toBe(false)
  })

  it('lists its jobs of today and tomorrow, each ticked off with one touch', async () => {
    const job = (uid: string, hours: number, more = {}) => ({
      uid,
      meal: 'Saturday',
      words: `Job ${uid}`,
      due_at: new Date(Date.now() + hours * 36e5).toISOString(),
      minutes: 20,
      state: 'open' as const,
      is_late: false,
      ...more,
    })
    const jobs = [job('a', -5, { is_late: true }), job('b', 1, { state: 'done' }), job('c', 99)]
    const calls = server({ 'GET /meals': meals({ jobs }), 'POST /meal-jobs/a/news': meals() })
    const shown = mount(PlanJobs, { global: around() })
    await flushPromises()
    expect(shown.findAll('li')).toHaveLength(1)
    expect(plain(shown.text())).toContain('▲ late:')
    await shown.find('button').trigger('click')
    await flushPromises()
    expect(calls.find((call) => call.method === 'POST')?.body).toEqual({ sort: 'done' })
  })

  it('stands in a list with its day and whether it is on the list', async () => {
    const row = {
      name: 'Saturday',
      version: 1,
      day: '2026-12-12',
      at: '19:00',
      words: '60 Harbor roll',
      is_weekly: true,
      is_listed: true,
      is_over: false,
    }
    server({ 'GET /meals': meals({ meals: [row] }) })
    const shown = mount(PlansPlace, { global: around() })
    await flushPromises()
    expect(plain(shown.text())).toContain('60 Harbor roll')
    expect(plain(shown.text())).toContain('Saturday 12 December, 19:00, every week')
    expect(plain(shown.text())).toContain('✓ on the list')
  })
})
