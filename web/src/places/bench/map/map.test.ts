import { mount } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { lying, store } from '@/shared/tests/bench'
import { standIn } from '@/shared/tests/samples'
import { around, plain, refused, server } from '@/shared/tests/server'
import MapPlace from './MapPlace.vue'
import StoreDrawing from './StoreDrawing.vue'

beforeEach(() => {
  standIn('lb')
  localStorage.clear()
})
afterEach(() => vi.unstubAllGlobals())

const open = async (answers: Record<string, unknown>) => {
  const calls = server(answers)
  const shown = mount(MapPlace, { global: around() })
  await vi.waitFor(() => expect(shown.find('.stores').exists()).toBe(true))
  return { calls, shown }
}
const button = (shown: ReturnType<typeof mount>, words: string) =>
  shown.findAll('button').find((one) => plain(one.text()).includes(words))

describe('a store as it stands', () => {
  it('draws each shelf with its places, by the word of its kind', () => {
    const drawn = (sort: 'fridge' | 'smoker' | 'chamber') =>
      mount(StoreDrawing, { props: { store: store({ sort }), held: null } })
    expect(drawn('fridge').findAll('.slot')).toHaveLength(4)
    expect(drawn('smoker').text()).toContain('rack 1')
    expect(drawn('chamber').text()).toContain('rod 2')
    const places = drawn('fridge').findAll('.slot')
    expect(places.map((place) => place.text().includes('J-01 A'))).toEqual([false, true, false, false])
  })

  it('offers a place only to a piece in the hand, and marks where two lie on each other', async () => {
    const twice = store({ lying: [lying('A', 1, 1), lying('lot', 1, 1)] })
    const shown = mount(StoreDrawing, { props: { store: twice, held: null } })
    expect(shown.find('.here').exists()).toBe(false)
    expect(shown.findAll('.slot.twice')).toHaveLength(1)
    expect(shown.text()).toContain('J-01 whole')
    await shown.setProps({ held: lying('B') })
    await shown.get('[aria-label="Put J-01 B in Fridge 1, shelf 2, place 2"]').trigger('click')
    expect(shown.emitted('put')).toEqual([[2, 2]])
  })
})

describe('the map', () => {
  const map = { stores: [store()], nowhere: [lying('B')] }

  it('lays the touched piece where one touches next', async () => {
    const given = { 'GET /map': map, 'POST /batches/J-01/pieces/B/facts': {} }
    const { calls, shown } = await open(given)
    expect(plain(shown.get('.nowhere').text())).toContain('J-01 B 4.41 lb')
    await button(shown, 'J-01 B')?.trigger('click')
    expect(shown.text()).toContain('J-01 B: tap where it goes')
    await shown.get('[aria-label="Put J-01 B in Fridge 1, shelf 2, place 1"]').trigger('click')
    await vi.waitFor(() => expect(shown.text()).toContain('tap a piece, then where it goes'))
    const laid = calls.find((call) => call.method === 'POST')
    expect(laid?.body).toMatchObject({ place: { store: 'Fridge 1', level: 2, slot: 1 }, thickness: '' })
  })

  it('asks before two lie in one place', async () => {
    const { calls, shown } = await open({ 'GET /map': map, 'POST /batches/J-01/pieces/B/facts': {} })
    const posted = () => calls.filter((call) => call.method === 'POST')
    await button(shown, 'J-01 B')?.trigger('click')
    const taken = '[aria-label="Put J-01 B in Fridge 1, shelf 1, place 2"]'
    await shown.get(taken).trigger('click')
    expect(plain(shown.text())).toContain('J-01 A is in that place. Put J-01 B there too?')
    await button(shown, 'Choose another place')?.trigger('click')
    expect(shown.find('.asked').exists()).toBe(false)
    expect(posted()).toEqual([])
    await shown.get(taken).trigger('click')
    await button(shown, 'Put it there too')?.trigger('click')
    await vi.waitFor(() => expect(posted()).toHaveLength(1))
    expect(posted()[0]?.body).toMatchObject({ place: { store: 'Fridge 1', level: 1, slot: 2 } })
  })

  it('puts a piece down again by a second touch, and takes one out', async () => {
    const { calls, shown } = await open({ 'GET /map': map, 'POST /batches/J-01/pieces/A/facts': {} })
    await shown.get('.piece').trigger('click')
    await shown.get('.piece').trigger('click')
    expect(shown.find('.here').exists()).toBe(false)
    await shown.get('.piece').trigger('click')
    await button(shown, 'Take J-01 A out')?.trigger('click')
    await vi.waitFor(() => expect(calls.filter((call) => call.method === 'POST')).toHaveLength(1))
    expect(calls.find((call) => call.method === 'POST')?.body).toMatchObject({ place: { store: '' } })
  })

  it('keeps a new fridge, and says what is wrong with one', async () => {
    const given: Record<string, unknown> = {
      'GET /map': { stores: [], nowhere: [] },
      'POST /stores': refused('bad_fields', { detail: 'Something is missing: a name.' }),
    }
    const { calls, shown } = await open(given)
    expect(shown.text()).toContain('No fridge, smoker or chamber yet')
    await button(shown, 'Add a fridge or rack')?.trigger('click')
    await shown.get('form').trigger('submit')
    await vi.waitFor(() => expect(shown.text()).toContain('Something is missing: a name.'))
    await shown.get('form input').setValue('Fridge 1')
    given['POST /stores'] = map
    await shown.get('form').trigger('submit')
    await vi.waitFor(() => expect(shown.find('[aria-label="Fridge 1"]').exists()).toBe(true))
    expect(calls.at(-1)?.body).toMatchObject({ name: 'Fridge 1', sort: 'fridge', levels: 3, slots: 2 })
  })

  it('changes one that stands already', async () => {
    const { calls, shown } = await open({ 'GET /map': map, 'POST /stores': map })
    await shown.get('[aria-label="Change Fridge 1"]').trigger('click')
    await shown.findAll('form input')[1]?.setValue(5)
    await shown.get('form').trigger('submit')
    await vi.waitFor(() => expect(calls.at(-1)?.body).toMatchObject({ name: 'Fridge 1', levels: 5 }))
  })
})
