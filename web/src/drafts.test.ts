import { flushPromises, mount } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { Component } from 'vue'
import { setOwner } from './shared/api/owner'
import { facts, store } from './shared/tests/bench'
import { settings, standIn } from './shared/tests/samples'
import { around, server } from './shared/tests/server'
import OfferPad from '@/places/buy/case/OfferPad.vue'
import FigureTable from '@/places/bench/cure/FigureTable.vue'
import FiguresPlace from '@/places/bench/cure/FiguresPlace.vue'
import InviteForm from './places/kitchen/InviteForm.vue'
import NoteForm from '@/places/fire/chamber/NoteForm.vue'
import KitchenPlace from './places/kitchen/KitchenPlace.vue'
import MapPlace from '@/places/bench/map/MapPlace.vue'
import NotePrice from '@/places/buy/prices/NotePrice.vue'
import WayForm from '@/places/buy/ways/WayForm.vue'

beforeEach(() => {
  standIn('lb')
  localStorage.clear()
})

const row = { key: 'dry', label: 'dry', value: '200', reference: '200', source: 'FSIS', is_own: false }

type Case = [what: string, form: Component, props: object, field: string, opener?: string]
const cases: Case[] = [
  ['a price', NotePrice, { sort: 'meat', sources: [] }, 'form input'],
  ['a method', WayForm, { input: null, methods: [] }, 'form input'],
  ['the kitchen', KitchenPlace, {}, 'input[placeholder="5 g"]'],
  ['a fridge or rack', MapPlace, {}, 'input[placeholder="Fridge 3"]', 'Add a fridge or rack'],
  ['a tag', OfferPad, { offer: null, listed: [] }, '.price input'],
  ['a limit', FigureTable, { sort: 'limit', unit: 'ppm', rows: [row] }, 'form input', 'own'],
  ['an invitation', InviteForm, {}, 'input'],
  [
    'a note on a hook',
    NoteForm,
    { hanging: [{ id: 1, label: 'S-01 P' }], unit: 'F', problem: null },
    'input',
  ],
  ['a mix', FiguresPlace, {}, 'input[placeholder="3 lb"]'],
]

describe.each(cases)('%s half typed', (_what, form, props, field, opener) => {
  const open = async () => {
    server({
      'GET /settings': settings,
      'GET /map': { stores: [store()], nowhere: [] },
      'GET /cure-desk': facts(),
    })
    const shown = mount(form, { props, global: around() })
    const press = async () => {
      const button = shown.findAll('button').find((one) => one.text() === opener)
      if (button?.attributes('aria-expanded') === 'false') await button.trigger('click')
    }
    await vi.waitFor(async () => {
      await press()
      expect(shown.find(field).exists()).toBe(true)
    })
    return shown
  }
  const typed = (shown: Awaited<ReturnType<typeof open>>): string =>
    (shown.get(field).element as HTMLInputElement).value

  it('is there after a reload, for the cook who typed it alone', async () => {
    const shown = await open()
    const before = typed(shown)
    await shown.get(field).setValue('7')
    await flushPromises()
    shown.unmount()
    const again = await open()
    expect(typed(again)).toBe('7')
    again.unmount()
    setOwner({ kitchen: 'test', username: 'odo' })
    expect(typed(await open())).toBe(before)
  })
})
