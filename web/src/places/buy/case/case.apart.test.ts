import { mount } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { defineComponent } from 'vue'
import { standIn } from '@/shared/tests/samples'
import { around, plain, server } from '@/shared/tests/server'
import CasePlace from './CasePlace.vue'
import { blankOffer } from './offerDraft'
import { useCase } from './useCase'

vi.mock('vue-router', () => ({ useRouter: () => ({ push: vi.fn() }) }))
beforeEach(() => {
  standIn('lb')
  localStorage.clear()
})

const choices = {
  ways: [],
  courses: [
    { course: 'pulled', label: 'pulled', steps: 'trim, pulled' },
    { course: 'cooked', label: 'cooked', steps: 'trim, dry cure' },
  ],
  shops: [],
  listed: [],
}
const checked = {
  offers: [],
  shops: [],
  problems: [],
  result: [],
  way: '',
  course: 'pulled',
  course_label: 'pulled',
  against: null,
  portion_label: null,
}
const own = { ...blankOffer('per_lb'), id: 'own', cut: 'jowl', price: '2.85' }

async function open() {
  const calls = server({ 'GET /case': choices, 'POST /case': checked })
  const seen: { it?: ReturnType<typeof useCase> } = {}
  const page = defineComponent({
    setup: () => {
      seen.it = useCase()
      return () => null
    },
  })
  mount(page, { global: around() })
  await vi.waitFor(() => expect(calls.some((call) => call.method === 'POST')).toBe(true))
  if (!seen.it) throw new Error('the page did not open')
  return { ...seen.it, calls }
}

describe('the case of a newcomer', () => {
  it('has four tags to look at, priced by the standard method until there is one', async () => {
    const { draft, calls } = await open()
    expect(draft.case.offers.map((offer) => offer.cut)).toEqual(['jowl', 'belly', 'loin', 'shoulder'])
    expect(calls.at(-1)?.body).toMatchObject({
      way: '',
      course: 'pulled',
      offers: [{ basis: 'per_lb' }, {}, {}, {}],
    })
    const shown = mount(CasePlace, { global: around() })
    await vi.waitFor(() => expect(shown.text()).toContain('These four tags are examples.'))
    await vi.waitFor(() => expect(plain(shown.text())).toContain('4 offers, for about 20 lb, to be pulled'))
    expect(shown.text()).toContain('Priced by the standard method')
  })

  it('gives its place to the first tag of one’s own, for good', async () => {
    const { draft, put } = await open()
    put(own)
    expect(draft.case.offers).toEqual([own])
    put({ ...own, price: '2.95' })
    put({ ...own, id: 'other' })
    expect(draft.case.offers.map((offer) => [offer.id, offer.price])).toEqual([
      ['own', '2.95'],
      ['other', '2.85'],
    ])
    expect((await open()).draft.case.offers).toHaveLength(2)
  })

  it('is cleared by a touch, and does not come back', async () => {
    const { clearExamples } = await open()
    clearExamples()
    expect((await open()).draft.case.offers).toEqual([])
  })

  it('is by the kilogram in a kitchen that thinks in kilograms', async () => {
    standIn('kg')
    const { draft } = await open()
    expect(draft.case.about).toBe('10 kg')
    expect(new Set(draft.case.offers.map((offer) => offer.basis))).toEqual(new Set(['per_kg']))
  })

  it('is asked for what a meal plan lacks, until it is no longer for the plan', async () => {
    const calls = server({ 'GET /case': choices, 'POST /case': checked })
    const query = { plan: 'Saturday', way: '', sliced: '8.370 lb', sure: '95', by: '2026-12-02' }
    const shown = mount(CasePlace, { props: { query }, global: around() })
    const last = () => calls.findLast((call) => call.method === 'POST')?.body
    await vi.waitFor(() => expect(last()).toMatchObject({ sliced: '8.370 lb', sure: '95', on: null }))
    const text = plain(shown.text())
    expect(text).toContain('for 8.370 lb sliced, to be pulled')
    expect(text).toContain('enough 95 times of 100; buy by Wednesday 2 December')
    await shown
      .findAll('button')
      .find((one) => one.text() === 'Not for a plan')
      ?.trigger('click')
    await vi.waitFor(() => expect(last()).toMatchObject({ sliced: '', sure: '90' }))
    expect(plain(shown.text())).toContain('for about 20 lb')
  })
})
