import { flushPromises, mount, RouterLinkStub } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { standIn } from '@/shared/tests/samples'
import { routed } from '@/shared/tests/router'
import { around, plain, refused, server } from '@/shared/tests/server'
import PlanJobs from '@/places/today/PlanJobs.vue'
import { useDayDrag } from '@/places/today/useDayDrag'
import NeededList from './NeededList.vue'
import PlanFacts from './PlanFacts.vue'
import PlanPlace from './PlanPlace.vue'
import PlanSide from './PlanSide.vue'
import PlansPlace from './PlansPlace.vue'
import { blankMake, blankMeal, dayAhead, isAskable, type Meal, type MealPage, type Meals } from './useMeals'

beforeEach(() => {
  standIn('lb')
  localStorage.clear()
})
afterEach(() => vi.unstubAllGlobals())

const lb = (weight: string) => ({ lb: weight, kg: '0.000' })
const buy: Meal['buys'][number] = {
  make: 0,
  products: ['Cherry jowl'],
  meat: 'jowl, skin on',
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
  needed: [
    {
      product: 'Cherry jowl',
      wanted: lb('10.62'),
      here: lb('2.25'),
      taken: lb('0.000'),
      coming: lb('0.000'),
      short: lb('8.37'),
    },
  ],
  coming: [],
  buys: [buy],
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
      product: '',
      basis: 'minutes of 5 own batches',
      reserve_hours: 0,
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
  is_too_late: false,
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
    { source: 'Harbour market', what: 'leaves', needed: '', here: '', buy: '5.79 lb', cost: '28.88' },
    { source: 'Quay stores', what: 'pellets', needed: '6.00 lb', here: '27.50 lb', buy: '', cost: null },
    { source: '', what: 'juniper', needed: '21 g', here: 'not counted', buy: '21 g', cost: '0.65' },
  ],
  missing: [],
  problems: [],
  ...more,
})
const draft = { ...blankMeal(), name: 'Saturday', makes: [{ ...blankMake(), way: 'Dry cure' }] }
const side = (more: Partial<Meal> = {}, props = {}) =>
  mount(PlanSide, { props: { plan: meal(more), draft, ...props }, global: around() })

describe('beside a plan', () => {
  it('says what to buy by when, what a plate will cost and what to fetch', () => {
    const text = plain(side().text())
    for (const words of [
      'buy by Wednesday 2 December',
      '3 packs, 18.00 lb',
      'jowl, skin on: $51.30 of meat. About 2.60 lb stay over for the larder: 14 more plates of Harbor roll.',
      'It fits.',
      'A plate will cost$2.42 to $2.56',
      'Food cost26 % to 27 %',
      'Left over from 60 plates$416.63 to $424.89',
      'Work in all1 h 51',
      'pellets 6.00 lb, 27.50 lb here✓',
      'juniper 21 g, not counted here21 g',
    ])
      expect(text).toContain(words)
    // where most is spent first
    expect(text).toMatch(/Harbour market\$28\.88.*Elsewhere\$0\.65.*Quay stores/)
    const to = side().findComponent(RouterLinkStub).props('to') as { query: object }
    expect(to.query).toEqual({
      plan: 'Saturday',
      way: 'Dry cure',
      sliced: '8.37 lb',
      sure: '90',
      by: '2026-12-02',
    })
  })

  it('says nothing of buying and beginning once it is being made', () => {
    const text = plain(side({ is_too_late: true }, { isUnderWay: true }).text())
    expect(text).not.toContain('3 packs')
    expect(text).not.toContain('What can be done')
    expect(text).toContain('Work in all')
  })

  it('offers what can be done where it does not fit, each with its price, and takes none by itself', async () => {
    const clash = { store: 'Smoker', begins: '', ends: '', words: 'Smoker: 2 places too few on 10 Dec.' }
    const input = { ...blankMeal(), reserve_hours: '24' }
    const ways_out = [
      { words: 'Smoke it in two loads', more: '13.05', input },
      { words: 'Begin 1 day earlier', more: '0.00', input },
      { words: 'Make 75 % of it', more: '-21.40', input },
      { words: 'Make none', more: null, input: null },
    ]
    const shown = side({ clashes: [clash], ways_out })
    const text = plain(shown.text())
    expect(text).toContain('Smoke it in two loads, $13.05 more')
    expect(text).toContain('Begin 1 day earlier, costs nothing')
    expect(text).toContain('Make 75 % of it, $21.40 less')
    expect(shown.findAll('button')).toHaveLength(3)
    expect(text).not.toContain('It fits')
    expect(shown.emitted('take')).toBeUndefined()
    await shown.find('button').trigger('click')
    expect(shown.emitted('take')).toEqual([[input]])
    expect(plain(side({ clashes: [clash] }).text())).toContain('Nothing of what can be tried here')
  })

  it('says that it is too late, and that there is nothing to buy', () => {
    const late = { is_too_late: true, later: 'Begun now it is ready Sun 13 Dec, 12:00.' }
    const text = plain(side({ ...late, buys: [{ ...buy, is_too_late: true, by: null, packs: null }] }).text())
    expect(text).toContain('too late to be bought for that day')
    expect(text).toContain('▲ Begun now it is ready Sun 13 Dec, 12:00.')
    expect(text).not.toContain('at the case')
    expect(plain(side({ buys: [], jobs: [] }).text())).toContain('Nothing to buy')
  })

  it('says where it comes from, and leaves out a batch under way that is not to be counted', async () => {
    const one = { code: 'B-02', products: ['Cherry jowl'], brings: lb('6.10'), is_left_out: false }
    const coming = [
      { ...one, ready: '2026-12-09T18:00:00Z', counts: true },
      { ...one, code: 'B-03', ready: null, counts: false },
      { ...one, code: 'B-04', ready: '2026-12-19T18:00:00Z', counts: false },
    ]
    const shown = mount(NeededList, {
      props: { plan: meal({ coming }), modelValue: [] },
      global: around(),
    })
    const text = plain(shown.text())
    expect(text).toContain('Cherry jowl, wanted10.62 lb')
    expect(text).toContain('B-02 about 6.10 lb of Cherry jowl, ready Wed 9 Dec')
    expect(text).toContain('when it is ready is not known, so not counted')
    expect(text).toContain('too late for the meal')
    await shown.get('[role="checkbox"]').trigger('click')
    expect(shown.emitted('update:modelValue')).toEqual([[['B-02']]])
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

const job = (uid: string, hours: number, more = {}) => ({
  uid,
  meal: 'Saturday',
  product: 'Cherry jowl',
  done_at: null,
  by_batch: false,
  words: `Job ${uid}`,
  due_at: new Date(Date.now() + hours * 36e5).toISOString(),
  minutes: 20,
  state: 'open' as const,
  is_late: false,
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
    const shown = mount(PlanPlace, { props: { name: '' }, global: routed() })
    await flushPromises()
    const type = async (label: string, value: string): Promise<void> => {
      const field = shown.findAll('label').find((one) => one.text().startsWith(label))
      await shown.get(`#${field?.attributes('for') ?? ''}`).setValue(value)
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
    expect(sent?.body).toMatchObject({
      name: 'Saturday',
      makes: [{ way: 'Dry cure' }],
      day: dayAhead(15),
    })
    expect(plain(shown.text())).toContain('That day has gone by.')
    vi.useRealTimers()
  })

  it('can be worked out once it is said what, when and how', () => {
    const wants = [{ sort: 'dish' as const, name: 'Harbor roll', amount: '4' }]
    const makes = [{ ...blankMake(), way: 'Dry cure' }]
    expect(isAskable({ ...blankMeal(), wants, makes })).toBe(true)
    expect(isAskable({ ...blankMeal(), makes })).toBe(false)
    expect(isAskable({ ...blankMeal(), wants })).toBe(false)
  })

  it('lists its jobs of today and tomorrow, each ticked off with one touch', async () => {
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

  it('that is on the list shows plan and fact beside each other, and follows the batch it is made in', async () => {
    const due = new Date(2026, 11, 2, 9)
    const at = (hours: number): string => new Date(+due + hours * 36e5).toISOString()
    const jobs = [
      job('a', 0, { due_at: at(0), done_at: at(3), state: 'done', by_batch: true }),
      job('b', 0, { due_at: at(24), done_at: at(20), state: 'done' }),
      job('c', 0, { due_at: at(48), is_late: true }),
      job('d', 0, { due_at: at(72), done_at: at(0), state: 'done', by_batch: true }),
    ]
    const page: MealPage = {
      name: 'Saturday',
      version: 1,
      input: draft,
      plan: meal(),
      jobs,
      made: [{ product: 'Cherry jowl', batch: 'B-02' }],
      batches: ['B-02', 'B-07'],
      is_under_way: true,
      on_time: 'Ready Sun 13 Dec, 10:00 as it stands: 15 hours after the meal.',
      is_late: true,
      changes: ['Buy 44.0 lb of jowl; the list says “Buy 20.0 lb of jowl”.'],
      rescues: [{ words: 'Move the meal to Sun 13 Dec, 10:00', more: null, input: draft }],
    }
    const calls = server({ 'POST /meals/Saturday/made': page, 'POST /meal-jobs/b/news': meals() })
    const shown = mount(PlanFacts, { props: { page }, global: around() })
    const text = plain(shown.text())
    expect(text).toContain('3 of 4 jobs done')
    expect(text).toContain('12:00, 3 h 00 late')
    expect(text).toContain('What its batch shows to be done is checked off by itself.')
    expect(text).toContain('05:00, 4 h 00 early')
    expect(text).toContain('3 days early')
    await shown.find('select').setValue('B-07')
    await shown.findAll('.ring')[1]?.trigger('click')
    await flushPromises()
    expect(calls.map((call) => call.body)).toEqual([
      { product: 'Cherry jowl', batch: 'B-07' },
      { sort: 'open' },
    ])
    expect(shown.findAll('.ring')[0]?.attributes('disabled')).toBeDefined()
  })

  it('that is late says so first, and what can still be done', async () => {
    const page: MealPage = {
      name: 'Saturday',
      version: 1,
      input: draft,
      plan: meal(),
      jobs: [job('a', -5)],
      made: [],
      batches: [],
      is_under_way: true,
      on_time: 'Ready Sun 13 Dec, 10:00 as it stands: 15 hours after the meal.',
      is_late: true,
      changes: ['Buy 44.0 lb of jowl; the list says “Buy 20.0 lb of jowl”.'],
      rescues: [
        { words: 'Move the meal to Sun 13 Dec, 10:00', more: null, input: { ...draft, day: '2026-12-13' } },
      ],
    }
    server({ 'GET /meals': meals(), 'GET /meals/Saturday': page, 'POST /previews/meals': meal() })
    const shown = mount(PlanPlace, { props: { name: 'Saturday' }, global: routed() })
    await flushPromises()
    const text = plain(shown.text())
    expect(text).toContain('▲ Ready Sun 13 Dec, 10:00 as it stands')
    expect(text).toContain('▲ Buy 44.0 lb of jowl; the list says “Buy 20.0 lb of jowl”.')
    // it is being made: nothing is to be bought any more
    expect(text).not.toContain('3 packs')
    await shown.find('.status button').trigger('click')
    expect(plain(shown.text())).toContain('on Sunday 13 December at 19:00')
    expect(plain(shown.text())).toContain('Save the plan')
  })

  it('is taken hold of and dragged day by day', () => {
    const moved: number[] = []
    const { isDragging, take, drag, drop } = useDayDrag(
      () => 40,
      (days) => moved.push(days),
    )
    const at = (clientX: number) =>
      ({ clientX, target: document.body, pointerId: 1 }) as unknown as PointerEvent
    drag(at(300))
    take(at(100))
    for (const x of [130, 141, 150, 185, 95]) drag(at(x))
    expect([moved, isDragging.value]).toEqual([[1, 1, -2], true])
    drop()
    drag(at(300))
    expect(moved).toHaveLength(3)
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
    expect(shown.find('input').exists()).toBe(false)
  })

  it('stands beside another one', async () => {
    const row = {
      version: 1,
      day: '2026-12-12',
      at: '19:00',
      words: '60 Harbor roll',
      is_weekly: false,
      is_listed: false,
      is_over: false,
    }
    const page = (name: string, plan: Meal): MealPage => ({
      name,
      version: 1,
      input: draft,
      plan,
      jobs: [],
      made: [],
      batches: [],
      is_under_way: false,
      on_time: '',
      is_late: false,
      changes: [],
      rescues: [],
    })
    const clash = { store: 'Smoker', begins: '', ends: '', words: 'Smoker: 2 places too few.' }
    server({
      'GET /meals': meals({ meals: ['One', 'Two'].map((name) => ({ ...row, name })) }),
      'GET /meals/One': page('One', meal()),
      'GET /meals/Two': page('Two', meal({ clashes: [clash], cost: '99.00' })),
    })
    const shown = mount(PlansPlace, { global: around() })
    await flushPromises()
    for (const box of shown.findAll('[role="checkbox"]')) await box.trigger('click')
    await flushPromises()
    const rows = shown.findAll('tr').map((one) => plain(one.text()))
    expect(rows[0]).toBe('OneTwo')
    expect(rows).toContain('Does it fit✓ it fits▲ Smoker: 2 places too few.')
    expect(rows).toContain('In all$85.80$99.00')
  })
})
