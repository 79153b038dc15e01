import { flushPromises, mount } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { reactive } from 'vue'
import { brine, curingTime, cured, deskPiece, facts, gauge, pieces } from '@/shared/tests/bench'
import { batch, standIn } from '@/shared/tests/samples'
import { around, plain, refused, server } from '@/shared/tests/server'
import CureDesk from './CureDesk.vue'
import CuringTime from './CuringTime.vue'
import FigureTable from './FigureTable.vue'
import NitriteGauge from './NitriteGauge.vue'
import PieceFields from './PieceFields.vue'
import RecipeFields from './RecipeFields.vue'
import { blankRecipe as begin, changePiece, changeSchool, type Cured, type School, shows } from './recipes'
import WeighOut from './WeighOut.vue'

beforeEach(() => {
  standIn('lb')
  localStorage.clear()
})
afterEach(() => vi.unstubAllGlobals())

const schools = facts().schools.map((school) => school.key)
const piece: Cured = { product: 'bacon', skin: 'off', course: null }
const blankRecipe = (school: School = 'measured') => begin(facts().schools, school, piece)

describe('recipes by school', () => {
  it('begin with what their school needs, and with one dose', () => {
    for (const school of schools) {
      const recipe = blankRecipe(school)
      expect(recipe.target && recipe.agent_amount).toBe('')
      expect(Boolean(recipe.pump)).toBe(shows(facts().schools, school, 'pump'))
      expect(Boolean(recipe.water)).toBe(shows(facts().schools, school, 'water'))
    }
    expect(blankRecipe('plain').agent).toBe('none')
    expect(() => begin(facts().schools, 'crust' as School, piece)).toThrow('no curing method crust')
  })

  it('begin with the curing salt for what the piece becomes, and follow it until one was chosen', () => {
    const dried = { ...piece, course: 'air_dried' as const }
    expect(begin(facts().schools, 'measured', dried).agent).toBe('no_2')
    const usual = { ...blankRecipe(), water: '90 %' }
    const followed = changePiece(facts().schools, usual, piece, dried)
    expect([followed.agent, followed.target, followed.water]).toEqual(['no_2', '150', '90 %'])
    const own = { ...usual, target: '120' }
    expect(changePiece(facts().schools, own, piece, dried)).toEqual(own)
  })

  it('keep what was added when the school changes', () => {
    const extras = [{ name: 'juniper', amount: '0.3 %', spoon: '', stage: 1 as const }]
    const changed = changeSchool(facts().schools, { ...blankRecipe(), name: 'House', extras }, 'brine', piece)
    expect([changed.school, changed.name, changed.extras[0]?.name]).toEqual(['brine', '', 'juniper'])
  })

  const asks: Record<School, [string[], string[]]> = {
    measured: [
      ['Nitrite wanted, ppm', 'Amount, % of the meat', 'Amount of it, % of the meat'],
      ['Pump', 'Water, %', 'In the box'],
    ],
    spoon: [
      ['Amount, like 2 tsp/lb', 'Amount of it, like 1 tsp/lb'],
      ['Pump', 'Water, %', 'Amount, %'],
    ],
    salt_box: [['In the box, % of the meat', 'Salt you expect it to take'], ['Pump']],
    brine: [
      [
        'Amount, % of meat and water',
        'Amount of it, % of meat and water',
        'Pick-up',
        'Hot part of the water',
      ],
      ['Pump', 'Amount, % of the meat'],
    ],
    injection: [
      ['Pump: weight gained', 'Extra brine', 'Amount, % of the meat'],
      ['Water, % of the meat', 'Pick-up'],
    ],
    inject_cover: [
      ['Pump: weight gained', 'Water, % of the meat', 'Amount, % of meat and water'],
      ['Extra brine'],
    ],
    ready_mixed: [
      ['The packet’s rate', 'Nitrite from its label'],
      ['Sugar', 'Nitrite wanted'],
    ],
    two_stage: [['Nitrite wanted, ppm'], ['Pump', 'Water, %']],
    sausage: [
      ['Nitrite wanted, ppm', 'Sugar'],
      ['Pump', 'Water, %'],
    ],
    plain: [
      ['Salt', 'Sugar'],
      ['Curing salt', 'Nitrite wanted'],
    ],
  }
  it.each(schools)('ask for the few fields of %s and no others', (school) => {
    const shown = mount(RecipeFields, {
      props: { facts: facts(), piece, path: '', recipe: blankRecipe(school) },
    })
    const [here, absent] = asks[school]
    for (const words of here) expect(shown.text()).toContain(words)
    for (const words of absent) expect(shown.text()).not.toContain(words)
  })

  it('take pepper and herbs along, in the second stage where there is one', async () => {
    const recipe = reactive(blankRecipe('two_stage'))
    const shown = mount(RecipeFields, { props: { facts: facts(), piece, path: '', recipe } })
    await shown.get('.add').trigger('click')
    await shown.get('.extra [role="checkbox"]').trigger('click')
    expect(recipe.extras).toEqual([{ name: '', amount: '', spoon: '', stage: 2 }])
    await shown.get('.extra button').trigger('click')
    expect(recipe.extras).toEqual([])
  })
})

describe('is it too much', () => {
  const shown = (more: Parameters<typeof gauge>[0] = {}) =>
    mount(NitriteGauge, { props: { gauge: gauge(more) } })

  it('is said in a word beside the figure, its source below', () => {
    expect(plain(shown().text())).toContain('150 ppm going in✓ within the limit')
    expect(plain(shown().text())).toContain('145 to 156 ppm: half a step of the scale')
    expect(plain(shown({ ppm: '190.0', high: '204' }).text())).toContain('▲ may be over')
    expect(plain(shown({ ppm: '240.0', is_over: true }).text())).toContain('▲ over the limit')
    expect(plain(shown({ ppm: null, low: null, high: null }).text())).toContain('not known▲ not known')
  })

  it('shows both figures of a brine, and an own limit beside the reference', () => {
    const result = plain(
      shown({ pick_up: '96.4', one_system: '110.0', limit: '120', reference: '200' }).text(),
    )
    expect(result).toContain('by pick-up96.4 ppm')
    expect(result).toContain('as one system, once even110 ppm')
    expect(result).toContain('The reference table has 200 ppm.')
  })

  it('draws what is over the limit beyond its mark, and both on the sheet', () => {
    const drawn = shown({ ppm: '600.0', low: null, high: null, is_over: true })
    const limit = Number(drawn.get('line').attributes('x1'))
    const bar = Number(drawn.findAll('rect')[1]?.attributes('width'))
    expect(bar).toBeGreaterThan(limit)
    expect(bar).toBeLessThanOrEqual(420)
  })
})

describe('how long', () => {
  const inAt = '2026-03-02T08:00:00Z'
  const shown = (more: Parameters<typeof curingTime>[0] = {}, out: number | null = null) =>
    mount(CuringTime, { props: { time: curingTime(more), inAt, out } })

  it('names the days of the window and the centre on the day picked', () => {
    const result = plain(shown().text())
    expect(result).toContain('out between 9 Mar and 14 Mar')
    expect(result).toContain('Salt at the center on day 9: 72 % of the salt outside (likely 63 to 81 %)')
    expect(result).toContain('A week an inch: 10 days.')
    expect(result).toContain('Inside the window.')
  })

  it('lets the cook pick any day, and says when it is outside of the window', async () => {
    const picked = shown({ out: 14, state: 'over', said: 'A few days over do no harm.' })
    expect(plain(picked.text())).toContain('A few days over do no harm.')
    await picked.get('[aria-label="A day later"]').trigger('click')
    await picked.get('[aria-label="A day earlier"]').trigger('click')
    await picked.get('input').setValue('')
    expect(picked.emitted('update:out')).toEqual([[15], [13], [null]])
  })

  it('asks for the thickness where there is no curve', () => {
    const bare = mount(CuringTime, {
      props: { time: curingTime({ curve: [], center: null, asks_thickness: true }), inAt, out: null },
    })
    expect(bare.text()).toContain('Measure the thickest part')
    expect(bare.find('circle').exists()).toBe(false)
  })
})

describe('what to weigh out', () => {
  const shown = (more: Parameters<typeof deskPiece>[1] = {}) =>
    mount(WeighOut, { props: { piece: deskPiece('A', more) } })

  it('reads as the scale does, and in spoons with their spread for those who must', async () => {
    const out = shown()
    expect(plain(out.text())).toContain('Weigh out for A4.41 lb, 2\u202f000 g'.replace('\u202f', ' '))
    expect(out.findAll('.grams').map((cell) => plain(cell.text()))).toEqual(['50.0 g', '4.80 g'])
    await out.get('[role="checkbox"]').trigger('click')
    expect(plain(out.get('.grams').text())).toBe('3 tbsp49.5 g as measured, 45 to 55 g50.0 g on a scale')
  })

  it('parts a brine between needle and tub, and says what is only to spare', () => {
    const both = brine({ injector_grams: '200', tub_grams: '2000' })
    expect(plain(shown({ brine: both }).text())).toContain('Inject 200 g, the rest 2 000 g into the tub.')
    const pumped = brine({ injector_grams: '200', tub_grams: '0', spare_grams: '20' })
    expect(plain(shown({ brine: pumped }).text())).toContain('the rest 20 g extra.')
    expect(plain(shown({ brine: brine() }).text())).not.toContain('needle')
    expect(plain(shown({ brine: brine() }).text())).toContain('83 °F (28 °C). ▲ Too warm for meat')
  })

  it('shows a caution with its source, and says what is not known', () => {
    const cautions = [
      {
        code: 'cold_plain',
        severity: 'care' as const,
        subject: '',
        message: 'No nitrite before a cold smoke.',
        source: 'Job sheet',
      },
    ]
    const result = plain(shown({ cautions, salt_in_slice: null }).text())
    expect(result).toContain('No nitrite before a cold smoke. Job sheet')
    expect(result).toContain('Salt in the finished slice: not known')
    expect(plain(shown({ lines: [] }).text())).toContain('Nothing can be weighed out yet')
  })
})

describe('the piece on the desk', () => {
  it('may be cured from a mix that is left, and names what it becomes', async () => {
    const mix = {
      id: 3,
      recipe: 'House dry',
      version: 1,
      left_grams: '410',
      made_at: '',
      note: '',
      words: '156 ppm at 3.2 %',
    }
    const weights = { made: { lb: '1', kg: '0.5' }, left: { lb: '0.9', kg: '0.41' } }
    const used = { ...mix, ...weights, id: 4, left_grams: '0' }
    const laid = reactive({
      mark: 'A',
      recipe: blankRecipe(),
      product: 'bacon' as const,
      course: '' as const,
      thickness: '',
      skin: '' as const,
      out_day: null,
      mix: null as number | null,
      tub: '',
      is_kept_warm: false,
    })
    const wishes = { turn_days: 1, dry_hours: 12, soak_minutes: null, reseason: false, spice_day: null }
    const shown = mount(PieceFields, {
      props: {
        facts: facts({ mixes: [{ ...mix, ...weights }, used] }),
        skin: 'on',
        product: 'bacon',
        course: 'cold-smoked, raw',
        path: 'pieces[0].',
        piece: laid,
        scale: '',
        inAt: '',
        wishes,
      },
    })
    expect(shown.text()).toContain('as known: on')
    expect(shown.text()).toContain('as said: cold-smoked, raw')
    const mixes = shown.findAll('select').at(3)
    expect(mixes?.findAll('option').map((option) => option.text())).toEqual([
      'weigh each ingredient',
      'House dry, 410 g left: 156 ppm at 3.2 %',
    ])
    await mixes?.setValue('3')
    expect(laid.mix).toBe(3)
    await shown.findAll('select')[1]?.setValue('air_dried')
    expect(laid.course).toBe('air_dried')
  })
})

describe('reference figures', () => {
  const rows = [
    {
      key: 'bacon_dry',
      label: 'bacon, dry rub',
      value: '120',
      reference: '200',
      source: 'Quay',
      is_own: true,
    },
  ]
  it('give way to the kitchen’s own with its source, and come back', async () => {
    const calls = server({ 'POST /cure-figures': facts() })
    const shown = mount(FigureTable, { props: { sort: 'limit', unit: 'ppm', rows }, global: around() })
    expect(plain(shown.text())).toContain('Quay; the reference has 200.')
    await shown.get('button').trigger('click')
    await shown.get('input').setValue('100')
    await shown.get('form').trigger('submit')
    await flushPromises()
    expect(calls[0]?.body).toEqual({ sort: 'limit', name: 'bacon_dry', value: '100', source: 'Quay' })
    expect(shown.emitted('kept')).toHaveLength(1)
    await shown.get('button').trigger('click')
    await shown.findAll('form button').at(-1)?.trigger('click')
    await flushPromises()
    expect(calls[1]?.body).toEqual({ sort: 'limit', name: 'bacon_dry', value: '', source: '' })
  })
})

describe('the cure desk', () => {
  const under = { cures: [cured('C')], charges: [] }
  const answers = (): Record<string, unknown> => ({
    'GET /batches/J-01': batch(),
    'GET /batches/J-01/pieces': pieces(['A', 'B', 'C']),
    'GET /batches/J-01/cures': under,
    'GET /cure-desk': facts(),
    'POST /batches/J-01/cure-desk': {
      pieces: [deskPiece('A'), deskPiece('B')],
      totals: [{ name: 'coarse salt', grams: '100.0', cost: null }],
      cost: '0.62',
      unpriced: ['curing salt no. 1'],
      problems: [],
    },
  })
  const open = async (given: Record<string, unknown>) => {
    const calls = server(given)
    const shown = mount(CureDesk, { props: { code: 'J-01' }, global: around(), attachTo: document.body })
    await vi.waitFor(() => expect(shown.text()).toContain('Weigh out for A'))
    return { calls, shown }
  }

  it('lays on it what is in no cure yet, and sums up what to have in the house', async () => {
    const { calls, shown } = await open(answers())
    expect(shown.get('h1').text()).toBe('Cure for 2 pieces')
    expect(plain(shown.get('.totals').text())).toContain('For all: 100.0 g coarse salt.')
    expect(plain(shown.get('.totals').text())).toContain('No price is listed yet for curing salt no. 1.')
    const asked = calls.find((call) => call.path.endsWith('/cure-desk') && call.method === 'POST')
    const laid = (asked?.body as { pieces: { mark: string; product: string }[] }).pieces
    // cured as what each piece is known to be, unless the cook says otherwise; C is in a cure already
    expect(laid.map((one) => [one.mark, one.product])).toEqual([
      ['A', ''],
      ['B', ''],
    ])
    const known = shown.findAll('option').find((one) => one.text().startsWith('as known: bacon'))
    expect(known?.attributes('value')).toBe('')
  })

  it('asks before it believes, and puts in once it is answered yes', async () => {
    const given = answers()
    const { calls, shown } = await open(given)
    const fields = [{ path: 'pieces[0].recipe.salt.amount', code: 'ask', message: 'Did you mean 2.5 %?' }]
    given['POST /batches/J-01/cures'] = refused('ask', { fields, detail: 'Is that right?' })
    const button = shown.get('.head .first')
    await button.trigger('click')
    await vi.waitFor(() => expect(shown.text()).toContain('Did you mean 2.5 %?'))
    expect(button.text()).toBe('Into the cure anyway')
    await shown.get('.asked [role="checkbox"]').trigger('click')
    given['POST /batches/J-01/cures'] = { cures: [cured('A'), cured('B')], charges: [] }
    await button.trigger('click')
    await vi.waitFor(() => expect(shown.text()).toContain('In the cure: A · B.'))
    const sent = calls.filter((call) => call.path === '/batches/J-01/cures' && call.method === 'POST')
    expect(sent.map((call) => (call.body as { sure: boolean }).sure)).toEqual([false, true])
    expect(sent[0]?.key).not.toBe(sent[1]?.key)
  })

  it('lays all pieces under one brine where all get the same recipe of one', async () => {
    const { calls, shown } = await open(answers())
    const tubs = async (school: string) => {
      const method = shown.findAll('label').find((one) => one.text().startsWith('Curing method'))
      await shown.get(`select#${method?.attributes('for') ?? ''}`).setValue(school)
      const same = shown.findAll('button').find((one) => one.text() === 'Same recipe for all pieces')
      await same?.trigger('click')
      await vi.waitFor(() => {
        const asked = calls.filter((call) => call.path.endsWith('/cure-desk') && call.method === 'POST')
        const laid = (asked.at(-1)?.body as { pieces: { tub: string; recipe: { school: string } }[] }).pieces
        expect(laid.map((one) => one.recipe.school)).toEqual([school, school])
      })
      const asked = calls.filter((call) => call.path.endsWith('/cure-desk') && call.method === 'POST')
      return (asked.at(-1)?.body as { pieces: { tub: string }[] }).pieces.map((one) => one.tub)
    }
    expect(await tubs('salt_box')).toEqual(['', ''])
    expect(await tubs('brine')).toEqual(['1', '1'])
  })

  it('leaves out what is not to go in now', async () => {
    const given = { ...answers(), 'POST /batches/J-01/cures': { cures: [], charges: [] } }
    const { calls, shown } = await open(given)
    await shown.findAll('[aria-label="On the desk"] [role="checkbox"]')[1]?.trigger('click')
    expect(shown.get('h1').text()).toBe('Cure for 1 piece')
    await shown.get('.head .first').trigger('click')
    await flushPromises()
    const sent = calls.find((call) => call.path === '/batches/J-01/cures' && call.method === 'POST')
    expect((sent?.body as { pieces: { mark: string }[] }).pieces.map((one) => one.mark)).toEqual(['A'])
  })

  it('shows what went into a cure as it was weighed out, by touch, and at once where all are in', async () => {
    const { shown } = await open(answers())
    expect(shown.find('.in .here').exists()).toBe(false)
    await shown.get('[aria-label="Show the cure of C"]').trigger('click')
    expect(plain(shown.text())).toContain('Weighed out for C')
    expect(plain(shown.text())).toContain('House dry, version 2, put in 2 Mar')
    expect(plain(shown.text())).toContain('Picked: day 9, 11 Mar')
    expect(shown.find('#out-7').exists()).toBe(false)
    await shown.get('[aria-label="On the desk"] .piece').trigger('click')
    expect(shown.text()).toContain('Weigh out for A')
    expect(shown.text()).toContain('Percent of the meat’s weight.')
    shown.unmount()
    const all = { cures: [cured('B', { id: 9 }), cured('A', { id: 8 })], charges: [] }
    const given = { 'GET /batches/J-01/cures': all, 'GET /batches/J-01/pieces': pieces(['A', 'B']) }
    server({ ...answers(), ...given })
    const done = mount(CureDesk, { props: { code: 'J-01' }, global: around() })
    await vi.waitFor(() => expect(done.text()).toContain('Weighed out for A'))
    expect(done.findAll('.look b').map((mark) => mark.text())).toEqual(['A', 'B'])
  })

  it('takes back a cure put down by mistake, and says why it would not', async () => {
    const given = answers()
    const { shown } = await open(given)
    const fields = [{ path: 'reason', code: 'missing', message: 'Give a reason: it stays in the record.' }]
    given['POST /batches/J-01/cures/7/take-back'] = refused('bad_fields', { fields })
    await shown.get('.look').trigger('click')
    await shown.get('.back').trigger('click')
    const form = () => shown.get('[aria-label^="As weighed out"] form')
    await form().trigger('submit')
    await vi.waitFor(() => expect(shown.text()).toContain('Give a reason: it stays in the record.'))
    given['POST /batches/J-01/cures/7/take-back'] = null
    await form().trigger('submit')
    await vi.waitFor(() => expect(shown.text()).toContain('No answer came back'))
    given['POST /batches/J-01/cures/7/take-back'] = { cures: [], charges: [] }
    await form().trigger('submit')
    await vi.waitFor(() => expect(shown.find('.in').exists()).toBe(false))
  })
})
