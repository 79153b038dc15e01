import { flushPromises, mount } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { judged, standIn, verdict } from '@/shared/tests/samples'
import { around, plain, server } from '@/shared/tests/server'
import SlideBar from '@/shared/ui/SlideBar.vue'
import DialRow from './DialRow.vue'
import OutlayTable from './OutlayTable.vue'
import PayBack from './PayBack.vue'
import PolicyPanel from './PolicyPanel.vue'
import WhatMatters from './WhatMatters.vue'

beforeEach(() => {
  standIn('lb')
  localStorage.clear()
})
afterEach(() => vi.unstubAllGlobals())

describe('what is counted', () => {
  const panel = (policy = verdict().policy) =>
    mount(PolicyPanel, { props: { verdict: verdict(), policy }, global: around() })

  it('says on its button what counts, and when what is shown is not what is kept', () => {
    expect(plain(panel().text())).toContain('Work not counted')
    expect(plain(panel({ ...verdict().policy, fuel: false }).text())).toContain('Changed, not saved')
    const paid = { ...verdict().policy, labour_rate: '18.00' }
    const kept = mount(PolicyPanel, {
      props: { verdict: verdict({ policy: paid }), policy: { ...paid } },
      global: around(),
    })
    expect(plain(kept.text())).toContain('Work counted, $18.00')
  })

  it('keeps it for the batch as an entry, only on request', async () => {
    const calls = server({ 'POST /batches/J-01/entries': { entry: 9, batch: {} } })
    const shown = panel({ ...verdict().policy, fuel: false })
    await shown.get('button').trigger('click')
    expect(calls).toEqual([])
    const keep = shown.findAll('button').find((one) => one.text() === 'Save for this batch')
    await keep?.trigger('click')
    await flushPromises()
    expect(calls[0]?.body).toMatchObject({
      content: { act: 'policy', fuel: false, packaging: true },
      seen: 4,
    })
    expect(shown.emitted('kept')).toHaveLength(1)
  })

  it('makes it the kitchen’s beside what else the kitchen has set', async () => {
    const settings = { labour_rate: '18.00', by_products: true, fuel: true, packaging: true, overhead: true }
    const all = { ...settings, scale: '5 g', fridge_slabs: 6, smoker_slabs: null }
    const calls = server({ 'GET /settings': all, 'PUT /settings': all })
    const shown = panel({ ...verdict().policy, overhead: false })
    await shown.get('button').trigger('click')
    await shown
      .findAll('button')
      .find((one) => one.text() === 'Save for the kitchen')
      ?.trigger('click')
    await flushPromises()
    expect(calls[1]).toMatchObject({
      method: 'PUT',
      body: { overhead: false, scale: '5 g', fridge_slabs: 6 },
    })
  })

  it('closes by Escape and gives the button back its focus', async () => {
    const shown = mount(PolicyPanel, {
      props: { verdict: verdict(), policy: verdict().policy },
      global: around(),
      attachTo: document.body,
    })
    await shown.get('button').trigger('click')
    expect(shown.find('.below').exists()).toBe(true)
    await shown.get('.drop').trigger('keydown', { key: 'Escape' })
    expect(shown.find('.below').exists()).toBe(false)
    expect(document.activeElement).toBe(shown.get('button').element)
  })
})

describe('a dial', () => {
  const props = { label: 'Smoked', path: 'yields.smoke', was: '87.6', unit: '% kept' }
  const dial = (modelValue: string) =>
    mount(DialRow, { props: { ...props, least: 40, most: 100, step: 0.5, places: 1, modelValue } })

  it('moves by sliding and by typing alike, and says where the record stands', async () => {
    const shown = dial('87.6')
    expect(shown.text()).not.toContain('was')
    await shown.getComponent(SlideBar).setValue(90)
    expect(shown.emitted('update:modelValue')?.at(-1)).toEqual(['90.0'])
    await shown.get('input[type="text"]').setValue('91.25')
    expect(shown.emitted('update:modelValue')?.at(-1)).toEqual(['91.25'])
    expect(plain(dial('90.0').text())).toContain('% kept, was 87.6')
  })

  it('rests the slider on the record while what is typed is not a number', () => {
    expect(dial('much').get('[role="slider"]').attributes('aria-valuenow')).toBe('87.6')
  })
})

describe('a machine', () => {
  it('is asked about once it has a price, and shown in batches and years', async () => {
    const answer = {
      saved_by_minutes: '9.00',
      saved_by_loss: '2.00',
      saved: '11.00',
      batches: 17,
      years: '1.4',
    }
    const calls = server({ 'POST /batches/J-01/pay-back': { ...answer, problems: [] } })
    const shown = mount(PayBack, { props: { code: 'J-01', hourly: '18.00' }, global: around() })
    const [price, minutes] = shown.findAll('input')
    await minutes?.setValue('30')
    await new Promise((done) => setTimeout(done, 260))
    expect(calls).toEqual([])
    await price?.setValue('180')
    await vi.waitFor(() =>
      expect(plain(shown.text())).toContain('Pays for itself after 17 batches like this one, 1.4 years'),
    )
    expect(calls[0]?.body).toEqual({ price: '180', minutes: '30', kept_more: '' })
  })

  it('says so where it never pays, and where work has no price', async () => {
    const never = {
      saved_by_minutes: '0.00',
      saved_by_loss: '0.00',
      saved: '0.00',
      batches: null,
      years: null,
    }
    server({ 'POST /batches/J-01/pay-back': { ...never, problems: [] } })
    const shown = mount(PayBack, { props: { code: 'J-01', hourly: null }, global: around() })
    expect(shown.text()).toContain('Work has no price here')
    await shown.get('input').setValue('180')
    await vi.waitFor(() => expect(shown.text()).toContain('It never pays'))
  })
})

describe('tables beside the ladder', () => {
  it('rank what matters most, the worst with the longest bar', () => {
    const shown = mount(WhatMatters, { props: { verdict: verdict() } })
    expect(plain(shown.text())).toContain('how much more a sliced pound costs if each gets 10 % worse')
    expect(shown.findAll('li').map((line) => line.get('b').text())).toEqual(['$0.38', '$0.33'])
    const done = verdict({ judged: judged({ house: { ...judged().house, is_finished: true } }) })
    const heading = (of: typeof done) =>
      mount(WhatMatters, { props: { verdict: of } })
        .get('h2')
        .text()
    expect(heading(verdict())).toBe('What matters most in the price so far')
    expect(heading(done)).toBe('What matters most')
    standIn('kg')
    expect(
      mount(WhatMatters, { props: { verdict: verdict() } })
        .get('li b')
        .text(),
    ).toBe('$0.84')
  })

  it('show the jar as paid and as used', () => {
    const result = plain(mount(OutlayTable, { props: { verdict: verdict() } }).text())
    expect(result).toContain('curing saltone pack$5.00$0.52')
    expect(result).toContain('all$25.00$20.52')
  })
})
