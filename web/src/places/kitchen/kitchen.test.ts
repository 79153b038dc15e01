import { mount } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { settings, standIn } from '@/shared/tests/samples'
import { around, refused, server } from '@/shared/tests/server'
import KitchenPlace from './KitchenPlace.vue'

beforeEach(() => {
  standIn('lb')
  localStorage.clear()
})
afterEach(() => vi.unstubAllGlobals())

describe('the kitchen', () => {
  it('shows what it counts and keeps what is changed', async () => {
    const calls = server({ 'GET /settings': settings, 'PUT /settings': settings })
    const shown = mount(KitchenPlace, { global: around() })
    await vi.waitFor(() => expect(shown.find('form').exists()).toBe(true))
    const smoker = shown.findAll('input[inputmode="numeric"]').at(-1)
    await smoker?.setValue('4')
    await shown.get('form').trigger('submit')
    await vi.waitFor(() => expect(shown.text()).toContain('Saved'))
    expect(calls.find((call) => call.method === 'PUT')?.body).toEqual({ ...settings, smoker_slabs: 4 })
  })

  it('says what is wrong at its field', async () => {
    server({ 'GET /settings': settings })
    const shown = mount(KitchenPlace, { global: around() })
    await vi.waitFor(() => expect(shown.find('form').exists()).toBe(true))
    const fields = [{ path: 'scale', code: 'too_heavy', message: 'too coarse for a kitchen scale' }]
    server({ 'PUT /settings': refused('bad_fields', { fields }) })
    await shown.get('form').trigger('submit')
    await vi.waitFor(() => expect(shown.text()).toContain('too coarse for a kitchen scale'))
  })
})
