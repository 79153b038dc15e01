import { mount } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { standIn } from '@/shared/tests/samples'
import { around, plain, server } from '@/shared/tests/server'
import SellersPanel from './SellersPanel.vue'

beforeEach(() => {
  standIn('lb')
  localStorage.clear()
})
afterEach(() => vi.unstubAllGlobals())

const seller = (name: string, called = name) => ({ name, called, prices: 2, batches: 1 })
const open = (...sellers: ReturnType<typeof seller>[]) => {
  const calls = server({ 'POST /sellers': { items: [], house: [], sellers: [] } })
  return { calls, shown: mount(SellersPanel, { props: { sellers }, global: around() }) }
}

describe('sellers', () => {
  it('stand once each, with the names they were written under, which can be separated', async () => {
    const farm = seller('Hollow Farm')
    const { calls, shown } = open(farm, seller('Hollow Frm', 'Hollow Farm'), seller('Quay butcher'))
    const lines = shown.findAll('li').map((line) => plain(line.text()))
    expect(lines).toHaveLength(2)
    expect(lines[0]).toMatch(/^Hollow Farm ?4 prices, 2 batches ?also written “Hollow Frm”/)
    await shown.get('li button').trigger('click')
    await vi.waitFor(() =>
      expect(calls.map((call) => call.body)).toEqual([{ name: 'Hollow Frm', same_as: '' }]),
    )
  })

  it('are joined by choosing two of them', async () => {
    const { calls, shown } = open(seller('Hollow Farm'), seller('Old Hollow'))
    const [name, other] = shown.findAll('select')
    await name?.setValue('Old Hollow')
    // one is not joined to itself
    expect(other?.findAll('option').map((one) => one.text())).toEqual(['choose', 'Hollow Farm'])
    await other?.setValue('Hollow Farm')
    await shown.get('form').trigger('submit')
    await vi.waitFor(() =>
      expect(calls.map((call) => call.body)).toEqual([{ name: 'Old Hollow', same_as: 'Hollow Farm' }]),
    )
  })

  it('ask for nothing where there is but one', () => {
    expect(open(seller('Quay butcher')).shown.find('form').exists()).toBe(false)
  })
})
