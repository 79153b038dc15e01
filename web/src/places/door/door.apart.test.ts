import { flushPromises, mount } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { useSession } from '@/shared/api/useSession'
import { likelyCountry, countryOf } from '@/shared/kitchen/regions'
import { useUnits } from '@/shared/quantity/useUnits'
import { dayText, momentText, setZone } from '@/shared/quantity/when'
import { kitchenInfo, sessionOf } from '@/shared/tests/samples'
import { around, refused, server } from '@/shared/tests/server'
import FirstPage from './FirstPage.vue'
import StartKitchen from './StartKitchen.vue'
import TabletGate from './TabletGate.vue'

const push = vi.fn()
vi.mock('vue-router', () => ({
  useRouter: () => ({ push }),
  useRoute: () => ({ meta: {}, path: '/' }),
}))
const out = sessionOf({ signed_in: false, name: null, username: null, kitchens: [] })
beforeEach(() => {
  localStorage.clear()
  push.mockClear()
  useSession().session.value = out
})
afterEach(() => {
  vi.unstubAllGlobals()
  setZone('')
})

describe('the first page', () => {
  it('offers the demo by one touch, and a kitchen of one’s own', async () => {
    useSession().session.value = {
      ...out,
      may_start: true,
      demo: { username: 'maren', password: 'x', code: '' },
    }
    const calls = server({ 'GET /api/session': out, 'POST /api/session': sessionOf() })
    const page = mount(FirstPage, { global: around() })
    expect(page.text()).toContain('Start your kitchen')
    await page.get('button.way').trigger('click')
    await flushPromises()
    expect(calls.at(-1)?.body).toEqual({ username: 'maren', password: 'x', code: '' })
    expect(useSession().session.value?.signed_in).toBe(true)
  })

  it('offers neither where the machine does not', () => {
    const page = mount(FirstPage, { global: around() })
    expect(page.text()).not.toContain('Start your kitchen')
    expect(page.text()).not.toContain('demo')
  })

  it('asks for the second factor’s code only once it is needed', async () => {
    const page = mount(FirstPage, { global: around() })
    expect(page.text()).not.toContain('Code of your app')
    server({ 'GET /api/session': out, 'POST /api/session': refused('code_needed') })
    await page.get('form').trigger('submit')
    await vi.waitFor(() => expect(page.text()).toContain('Code of your app'))
  })
})

describe('starting a kitchen', () => {
  it('proposes what a country uses, and goes to the step whose field is wrong', async () => {
    const page = mount(StartKitchen, { global: around() })
    await page.find('select').setValue('DE')
    await page.get('form').trigger('submit')
    await page.get('form').trigger('submit')
    const fields = [{ path: 'username', code: 'name_taken', message: '“ibba” is taken.' }]
    const calls = server({ 'GET /api/session': out, 'POST /api/kitchens': refused('bad_fields', { fields }) })
    await page.get('form').trigger('submit')
    await vi.waitFor(() => expect(page.text()).toContain('“ibba” is taken.'))
    expect(page.get('[aria-current]').text()).toBe('2 You')
    const sent = calls.find((call) => call.method === 'POST')?.body
    expect(sent).toMatchObject({
      currency: 'EUR',
      weight_unit: 'kg',
      temperature_unit: 'C',
      decimal_sign: ',',
    })
  })

  it('asks who owns one already for the kitchen alone, and opens it', async () => {
    useSession().session.value = sessionOf()
    const page = mount(StartKitchen, { global: around() })
    expect(page.findAll('li').map((one) => one.text())).toEqual(['1 Kitchen', '2 What it has'])
    await page.get('form').trigger('submit')
    await page.get('[aria-label="One fridge more"]').trigger('click')
    await page.get('[aria-label="One fridge more"]').trigger('click')
    const session = sessionOf({ kitchens: [kitchenInfo(), kitchenInfo({ slug: 'porch' })] })
    const calls = server({ 'GET /api/session': session, 'POST /api/kitchens': { slug: 'porch', session } })
    await page.get('form').trigger('submit')
    await vi.waitFor(() => expect(push).toHaveBeenCalledWith({ name: 'start' }))
    expect(calls.find((call) => call.method === 'POST')?.body).toMatchObject({
      stores: [
        { kind: 'fridge', name: 'Fridge 1' },
        { kind: 'fridge', name: 'Fridge 2' },
      ],
    })
    expect(useSession().kitchen.value?.slug).toBe('porch')
  })

  it('knows what countries use, and guesses one', () => {
    expect(countryOf('US')).toMatchObject({ currency: 'USD', unit: 'lb', degrees: 'F', decimal: '.' })
    expect(countryOf('XX')).toBeNull()
    expect([likelyCountry('de-AT'), likelyCountry('en-XX'), likelyCountry('fr')]).toEqual(['AT', 'US', 'US'])
  })
})

describe('the kitchen’s tablet', () => {
  it('asks who is there, and for a code of those who have one', async () => {
    const people = [
      { id: 1, name: 'Ibba', has_code: true },
      { id: 2, name: 'Odo', has_code: false },
    ]
    const answers: Record<string, unknown> = {
      'GET /api/session': out,
      'GET /api/tablet': { kitchen: 'Porch', people },
    }
    const calls = server({ ...answers, 'POST /api/tablet': sessionOf({ name: 'Ibba', tablet: 'Porch' }) })
    const page = mount(TabletGate, { global: around() })
    await vi.waitFor(() => expect(page.text()).toContain('Who are you?'))
    const [ibba, odo] = page.findAll('.names button')
    expect(odo?.attributes('disabled')).toBeDefined()
    await ibba?.trigger('click')
    for (const key of ['4', '7', '⌫', '2']) {
      await page
        .findAll('.pad button')
        .find((one) => one.text() === key)
        ?.trigger('click')
    }
    expect(page.get('.typed').text()).toBe('●●')
    await page.get('[aria-label="Open"]').trigger('click')
    await flushPromises()
    expect(calls.at(-1)?.body).toEqual({ person: 1, code: '42' })
    expect(useSession().session.value?.name).toBe('Ibba')
  })
})

describe('a kitchen as its session tells of it', () => {
  it('is the one chosen on this device, with its role and clock', () => {
    const far = kitchenInfo({ slug: 'far', time_zone: 'Pacific/Auckland', role: 'helper', sees_money: false })
    const { session, kitchen, choose, may, seesMoney } = useSession()
    session.value = sessionOf({ kitchens: [kitchenInfo(), far] })
    expect([kitchen.value?.slug, may('owner'), seesMoney.value]).toEqual(['test', true, true])
    choose('far')
    expect([kitchen.value?.slug, may('helper'), may('cook'), seesMoney.value]).toEqual([
      'far',
      true,
      false,
      false,
    ])
    expect(document.cookie).toContain('zone=Pacific/Auckland')
    expect(momentText('2026-03-02T11:30:00Z')).toBe('3 Mar, 00:30')
    // a bare day is that day by every clock
    expect(dayText('2026-03-02')).toBe('2 Mar')
    choose('gone')
    expect(kitchen.value?.slug).toBe('test')
  })

  it('writes money, weights and per cents with its decimal sign, and a dash for a price that is kept from one', () => {
    useSession().session.value = sessionOf({
      kitchens: [kitchenInfo({ decimal_sign: ',', currency: 'EUR' })],
    })
    const { money, weightText, percent } = useUnits()
    expect([money('12.50'), money('-0.40'), money(''), money(null)]).toEqual(['€12,50', '−€0,40', '–', '–'])
    expect(weightText({ lb: '4.40', kg: '1.996' })).toBe('4,40 lb')
    expect([percent('71.5'), percent(8), percent(null)]).toEqual(['71,5 %', '8 %', '–'])
  })
})
