import { mount } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { useSession } from '@/shared/api/useSession'
import { kitchenInfo, sessionOf, standIn } from '@/shared/tests/samples'
import { type FakeStream, standInForStreams } from '@/shared/tests/stream'
import { around, plain, refused, server } from '@/shared/tests/server'
import { apart } from '@/places/fire/apart'
import type { Live } from '@/places/fire/useFires'
import { type Heard, withReading } from '@/places/fire/useReadings'
import FireTouches from './FireTouches.vue'
import { fireScale, hourTicks, layStages, lines } from './fireScale'
import LiveView from './LiveView.vue'
import RackDrawing from './RackDrawing.vue'
import ReadyPanel from './ReadyPanel.vue'
import { hoursText } from '@/shared/quantity/when'
import TroubleList from './TroubleList.vue'

beforeEach(() => {
  standIn('lb')
  localStorage.clear()
})
afterEach(() => vi.unstubAllGlobals())

const BEGUN = '2026-11-26T09:00:00Z'
const curve = (id: string, piece: string): Live['curves'][number] => ({
  id,
  probe: id,
  piece,
  where: 'thick end',
  is_now: true,
  now: '120',
  points: [[0, 40], [3600, 90], null, [7200, 120]],
})
const live = (more: Partial<Live> = {}): Live => ({
  id: 1,
  name: 'Loin',
  cooker: 'drum',
  unit: 'F',
  meat: 'pork',
  program: 'Night, version 2',
  wood: '',
  now: '2026-11-26T11:00:00Z',
  begun_at: BEGUN,
  out_at: null,
  done_at: null,
  meal_at: null,
  pull_at: '150',
  state: 'burning',
  stage: 0,
  stages: [
    {
      kind: 'smoke',
      label: 'Smoke 180',
      air: '180',
      minutes: null,
      inside: null,
      begun_at: BEGUN,
      ended_at: null,
    },
    {
      kind: 'cook',
      label: 'Cook 225',
      air: '225',
      minutes: null,
      inside: null,
      begun_at: null,
      ended_at: null,
    },
  ],
  next_stage: 'Cook 225 when you say so',
  air: '181',
  air_points: [
    [0, 60],
    [7200, 181],
  ],
  curves: [curve('1', 'L-01 A'), curve('2', 'L-01 B')],
  by_hand: [{ piece: 'L-01 B', where: 'thin end', seconds: 5700, degrees: 120 }],
  hanging: [
    {
      code: 'L-01',
      mark: 'A',
      label: 'L-01 A',
      rack: 1,
      slot: 1,
      probe: '1',
      where: '',
      now: '120',
      read_at: '2026-11-26T11:00:00Z',
      is_by_hand: false,
      is_unread: false,
      is_coldest: true,
      step_kind: 'smoke',
    },
    {
      code: 'L-01',
      mark: 'B',
      label: 'L-01 B',
      rack: 1,
      slot: 2,
      probe: '2',
      where: '',
      now: '120',
      read_at: '2026-11-26T10:35:00Z',
      is_by_hand: true,
      is_unread: true,
      is_coldest: false,
      step_kind: 'smoke',
    },
  ],
  coldest: '120',
  coldest_probe: '1',
  unread: ['L-01 B'],
  cooked_by: 'probe 1 in L-01 A',
  rate_per_hour: '20',
  ready: READY,
  lethality: [{ name: '7 log', part: '0.25', met_at: null }],
  lethality_source: 'the guideline',
  home_rule: '145 °F inside',
  home_met_at: null,
  cooling: [],
  peak: null,
  pulls: [],
  pulls_source: '',
  alarms: [],
  tender: null,
  troubles: [],
  events: [],
  notes: [],
  is_raw: false,
  heard_at: null,
  ...more,
})
const READY = {
  low: '2026-11-26T12:10:00Z',
  likely: '2026-11-26T12:30:00Z',
  high: '2026-11-26T13:00:00Z',
  why: null,
  left_seconds: null,
  back_low: null,
  back_high: null,
}
const buttonOf = (shown: ReturnType<typeof mount>, words: string) => {
  const found = shown.findAll('button').find((one) => plain(one.text()) === words)
  if (!found) throw new Error(`no button ${words}`)
  return found
}
const swap = {
  code: 'probe_swap',
  begun_at: BEGUN,
  ended_at: BEGUN,
  probe: '2',
  text: 'The two may be mixed up.',
  is_on: false,
}

describe('the drawing of a fire', () => {
  it('reaches from its beginning to a little past the later end of the range', () => {
    const scale = fireScale(live(), 800)
    expect(scale.now).toBe(7200)
    expect(scale.end).toBeCloseTo(4 * 3600 * 1.06)
    expect(scale.at(BEGUN)).toBe(44)
    expect(scale.high).toBeGreaterThan(181)
  })
  it('lays a stage as far as the program foresees, and the next one after it', () => {
    const stage = (kind: 'smoke' | 'cook', minutes: string | null, begun_at: string | null) => ({
      ...{ kind, label: kind, air: '180', minutes, inside: null, begun_at },
      ended_at: null,
    })
    const bars = (more: Partial<Live>, first: string | null) => {
      const shown = live({ stages: [stage('smoke', first, BEGUN), stage('cook', null, null)], ...more })
      return layStages(shown, fireScale(shown, 800)).map((one) => [one.is, Math.round(one.from + one.wide)])
    }
    // two hours have gone of three, and a little over four are drawn
    expect(bars({}, '180')).toEqual([
      ['now', 567],
      ['ahead', 784],
    ])
    // due already, without an end, or out: nobody knows when the next one begins
    for (const first of ['90', null]) expect(bars({}, first)).toEqual([['now', 784]])
    expect(bars({ out_at: '2026-11-26T11:00:00Z' }, '180').map(([is]) => is)).toEqual(['over'])
  })
  it('leaves a gap where nothing was read, and parts labels that lie on each other', () => {
    const same = (value: number): number => value
    expect(lines([[0, 1], [2, 3], null, [5, 6], [7, 8]], same, same)).toBe('M0.0 1.0L2.0 3.0M5.0 6.0L7.0 8.0')
    expect(apart([100, 102, 50], 14)).toEqual([100, 114, 50])
  })
  it('names full hours, few on a phone', () => {
    const ticks = hourTicks('2026-11-26T09:30:00Z', 10 * 3600, 4)
    expect(ticks.map((tick) => tick.at)).toEqual([1800, 1800 + 3 * 3600, 1800 + 6 * 3600, 1800 + 9 * 3600])
  })
})

describe('when it is ready', () => {
  const text = (more: Partial<Live>): string =>
    plain(mount(ReadyPanel, { props: { live: live(more) } }).text())
  it('is a range, and what it leaves before the meal by its later end', () => {
    const ready = { ...READY, left_seconds: 2 * 3600 + 300 }
    expect(text({ ready, meal_at: '2026-11-26T15:05:00Z' })).toContain('that leaves 2 h 05 if it takes long')
    expect(text({ ready: { ...ready, left_seconds: -3600 }, meal_at: BEGUN })).toContain(
      'nothing: 1 h 00 too late',
    )
  })
  it('is said to be there, or why nothing can be said', () => {
    expect(text({ ready: { ...READY, why: 'reached' } })).toContain('The coldest is there')
    const none = { low: null, likely: null, high: null, why: 'the cook is over', left_seconds: null }
    expect(text({ ready: none })).toContain('Not known yet: the cook is over.')
    expect(text({ ready: null })).toContain('No inside temperature is aimed at.')
  })
  it('is said with the decimal sign of the kitchen, as every temperature', () => {
    useSession().session.value = sessionOf({ kitchens: [kitchenInfo({ decimal_sign: ',' })] })
    expect(text({ pull_at: '65.6', unit: 'C', ready: { ...READY, why: 'reached' } })).toContain(
      '65,6 °C inside',
    )
    const racks = mount(RackDrawing, { props: { live: live({ air: '107.2', unit: 'C' }) }, global: around() })
    expect(racks.text()).toContain('air 107,2 °C')
  })
  it('prints spans of time', () => {
    expect([hoursText(0), hoursText(59 * 60), hoursText(3600), hoursText(-7500)]).toEqual([
      '0 min',
      '59 min',
      '1 h 00',
      '2 h 05',
    ])
  })
})

describe('beside the fire', () => {
  it('offers the swap in one touch, with the probe of the other piece', async () => {
    const shown = mount(TroubleList, { props: { live: live({ troubles: [swap] }) } })
    await shown.get('button').trigger('click')
    expect(shown.emitted('happened')).toEqual([[{ kind: 'swap', probe: '2', other: '1' }]])
  })
  it('records a reading by hand, and what needs no word at once', async () => {
    const shown = mount(FireTouches, { props: { live: live(), isSaving: false } })
    const touch = (word: string) => buttonOf(shown, word)
    await touch('Instant reading').trigger('click')
    await shown.get('input').setValue('141')
    await shown.get('form').trigger('submit')
    await touch('nearly').trigger('click')
    await touch('Spritzed').trigger('click')
    expect(shown.emitted('happened')).toEqual([
      [{ kind: 'instant', piece: 'L-01 A', temp: '141', where: '' }],
      [{ kind: 'tender', text: 'nearly' }],
      [{ kind: 'spritz', text: '' }],
    ])
  })
})

describe('the live view', () => {
  let stream: () => FakeStream | undefined
  beforeEach(() => {
    stream = standInForStreams()
  })

  it('shows a reading as it comes, before the server answers again', async () => {
    server({ 'GET /fires/1': live() })
    const shown = mount(LiveView, { props: { id: 1 }, global: around() })
    await vi.waitFor(() => expect(stream()?.url).toBe('/api/kitchens/test/cookers/drum/stream'))
    stream()?.say({
      state: 'live',
      at: '2026-11-26T11:00:05Z',
      read: { F: { air: '231', '1': '127' }, C: {} },
    })
    await vi.waitFor(() => expect(shown.text()).toContain('127°'))
    expect(shown.text()).toContain('air 231')
  })
  it('moves the stage by the cook’s touch and shows what the server answers', async () => {
    const calls = server({ 'GET /fires/1': live(), 'POST /fires/1/events': live({ stage: 1 }) })
    const shown = mount(LiveView, { props: { id: 1 }, global: around() })
    await vi.waitFor(() => expect(shown.text()).toContain('stage 1 of 2'))
    await buttonOf(shown, 'Next: Cook 225').trigger('click')
    await vi.waitFor(() => expect(shown.text()).toContain('stage 2 of 2'))
    expect(calls.find((call) => call.method === 'POST')?.body).toMatchObject({ kind: 'stage', stage: 1 })
  })
  it('says at its place what was refused', async () => {
    server({ 'GET /fires/1': live(), 'POST /fires/1/events': refused('fire_done', { status: 409 }) })
    const shown = mount(LiveView, { props: { id: 1 }, global: around() })
    await vi.waitFor(() => expect(shown.text()).toContain('stage 1 of 2'))
    await buttonOf(shown, 'Tasted').trigger('click')
    await vi.waitFor(() => expect(shown.get('[role="alert"]').text()).toContain('fire_done'))
  })
  it('follows the cooling once it is out', async () => {
    const leg = {
      name: 'to_70',
      rule: 'plain' as const,
      label: '135 to 70 °F',
      state: 'failed' as const,
      seconds: 7500,
      most_seconds: 7200,
      source: 'the code',
    }
    server({ 'GET /fires/1': live({ state: 'cooling', out_at: BEGUN, ready: null, cooling: [leg] }) })
    const shown = mount(LiveView, { props: { id: 1 }, global: around() })
    await vi.waitFor(() => expect(plain(shown.text())).toContain('135 to 70 °F▲ failed'))
    expect(plain(shown.text())).toContain('2 h 05 of 2 h 00')
    expect(plain(shown.text())).toContain('ask your local food authority')
  })
})

describe('a reading as it comes', () => {
  const heard = (at: string, read: Record<string, string>): Heard => ({
    state: 'live',
    at,
    read: { F: read, C: {} },
  })

  it('is what rack, curve and air all say', () => {
    const now = withReading(live(), heard('2026-11-26T11:00:05Z', { air: '231', '1': '127' }))
    expect(now.air).toBe('231')
    expect(now.hanging.find((one) => one.probe === '1')?.now).toBe('127')
    expect(now.curves.find((one) => one.probe === '1')?.now).toBe('127')
    // a probe that said nothing keeps what it read
    expect(now.hanging.find((one) => one.probe === '2')?.now).toBe(
      live().hanging.find((one) => one.probe === '2')?.now,
    )
  })

  it('is not taken where the answer is newer, nor when the fire is done', () => {
    const reading = heard('2026-11-26T10:00:00Z', { air: '99' })
    expect(withReading(live({ heard_at: '2026-11-26T11:00:00Z' }), reading).air).toBe(live().air)
    expect(withReading(live({ done_at: '2026-11-26T09:30:00Z' }), reading).air).toBe(live().air)
    expect(withReading(live(), { state: 'silent' }).air).toBe(live().air)
    expect(withReading(live(), null).air).toBe(live().air)
  })
})
