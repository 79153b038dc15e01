import { mount } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { lying, store } from '@/shared/tests/bench'
import { standIn } from '@/shared/tests/samples'
import { around, plain, refused, server } from '@/shared/tests/server'
import ChamberPlace from './ChamberPlace.vue'
import { lossScale, path } from './lossScale'
import type { Chamber, Hanging } from './useChamber'

beforeEach(() => {
  standIn('lb')
  localStorage.clear()
})
afterEach(() => vi.unstubAllGlobals())

const weight = (lb: string) => ({ lb, kg: '1' })
const hook = (more: Partial<Hanging> = {}): Hanging => ({
  id: 4,
  code: 'S-01',
  mark: 'P',
  label: 'S-01 P',
  name: 'Quay sausage',
  chamber: '',
  cell: '',
  hung_at: '2026-11-01T09:00:00Z',
  down_at: null,
  day: 20,
  green: weight('2.00'),
  weight: weight('1.60'),
  lost: '20.0',
  target: '40.0',
  weight_at_target: weight('1.20'),
  price: { per_lb: '10.00', per_kg: '22.05' },
  price_at_target: { per_lb: '13.33', per_kg: '29.39' },
  dots: [{ day: 10, lost: 12 }],
  line: [],
  low: '2026-12-10T09:00:00Z',
  likely: '2026-12-12T09:00:00Z',
  high: '2026-12-16T09:00:00Z',
  low_day: 39,
  high_day: 45,
  why: null,
  rim: null,
  ferment: null,
  findings: [],
  ...more,
})
const LOFT: Chamber['chambers'][number] = {
  name: 'loft',
  is_heard: true,
  temp: '55',
  humidity: '76.0',
  cells: ['1'],
  days: 14,
  temps: [
    { at: '2026-11-19T09:00:00Z', value: 54 },
    { at: '2026-11-20T09:00:00Z', value: 61 },
  ],
  humidities: [],
  outside: ['Air over 59 °F for 2 h.'],
  source: 'common practice',
}
const chamber = (more: Partial<Chamber> = {}): Chamber => ({
  unit: 'F',
  hanging: [hook()],
  loose: [],
  targets: { air_dried: '35' },
  down: [],
  chambers: [LOFT],
  air: [{ at: '2026-11-20T09:00:00Z', temp: '55', humidity: '76.0' }],
  ...more,
})
const open = async (answers: Record<string, unknown>) => {
  const calls = server({ 'GET /map': { stores: [store()], nowhere: [lying('B')] }, ...answers })
  const shown = mount(ChamberPlace, { global: around() })
  await vi.waitFor(() => expect(shown.text()).toMatch(/hang/))
  await vi.waitFor(() => expect(shown.find('.waiting').exists()).toBe(false))
  return { calls, shown }
}

describe('the drawing of losses', () => {
  it('reaches as far as the last bar, and down to the largest target', () => {
    const scale = lossScale([hook(), hook({ target: '30.0', high_day: 60 })], 800)
    expect(scale.days).toBeCloseTo(60 * 1.06)
    expect(scale.most).toBe(46)
    expect(
      path(
        [
          { day: 0, lost: 0 },
          { day: 1, lost: 2 },
        ],
        (day) => day,
        (lost) => lost,
      ),
    ).toBe('M0.0 0.0L1.0 2.0')
  })
})

describe('the chamber', () => {
  it('says what hangs in which air, and what is ready next at which weight and price', async () => {
    const { shown } = await open({ 'GET /chamber': chamber() })
    expect(plain(shown.text())).toContain('one piece hangs, 55 °F, 76 % humidity')
    expect(plain(shown.get('[aria-label="Next ready"]').text())).toContain('10 to 16 Dec')
    expect(plain(shown.get('[aria-label="Next ready"]').text())).toContain('A pound will have cost $13.33')
  })

  it('says in its head what the chamber says that is heard, else what was noted last', async () => {
    const air = [{ at: '2026-11-20T09:00:00Z', temp: '57', humidity: '81.0' }]
    const heard = await open({ 'GET /chamber': chamber({ air, chambers: [{ ...LOFT, humidity: '75.8' }] }) })
    expect(plain(heard.shown.text())).toContain('one piece hangs, 55 °F, 75.8 % humidity')
    const silent = await open({ 'GET /chamber': chamber({ air, chambers: [{ ...LOFT, is_heard: false }] }) })
    expect(plain(silent.shown.text())).toContain('one piece hangs, 57 °F, 81 % humidity')
  })

  it('says once what holds for several, and that one is dry', async () => {
    const findings = [
      { code: 'raw', severity: 'care' as const, subject: '', message: 'Raw pork.', source: '' },
    ]
    const hanging = [hook({ findings, why: 'reached' }), hook({ id: 5, label: 'S-01 Q', findings })]
    const { shown } = await open({ 'GET /chamber': chamber({ hanging }) })
    expect(shown.findAll('[aria-label="What to mind"] li')).toHaveLength(1)
    expect(shown.get('[aria-label="What hangs"]').text()).toContain('✓ dry')
  })

  it('hangs a piece as it weighs, and says what is refused at its place', async () => {
    const fields = [{ path: 'target', code: 'out_of_range', message: 'Less than all.' }]
    const { calls, shown } = await open({
      'GET /chamber': chamber({ hanging: [] }),
      'POST /hooks': refused('bad_fields', { fields }),
    })
    await vi.waitFor(() => expect(shown.findAll('option').length).toBeGreaterThan(1))
    await shown.get('select').setValue('J-01 B')
    await shown.get('form').trigger('submit')
    await vi.waitFor(() => expect(shown.text()).toContain('▲ Less than all.'))
    const body = calls.find((call) => call.method === 'POST')?.body
    expect(body).toEqual({
      code: 'J-01',
      mark: 'B',
      green: '',
      target: '',
      cell: '',
      chamber: '',
      hung_at: null,
    })
  })

  it('notes what belongs to the kind alone', async () => {
    const { calls, shown } = await open({ 'GET /chamber': chamber(), 'POST /hooks/4/notes': chamber() })
    const form = shown.get('[aria-label="Note"]')
    await form.findAll('select')[1]?.setValue('ph')
    await form.get('input').setValue('5.2')
    await form.trigger('submit')
    await vi.waitFor(() => expect(calls.some((call) => call.method === 'POST')).toBe(true))
    const body = calls.find((call) => call.method === 'POST')?.body
    expect(body).toEqual({ kind: 'ph', ph: '5.2', temp: '', humidity: '', before: '', after: '' })
  })
})
