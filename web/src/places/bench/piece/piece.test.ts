import { mount } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { task, cured, piece, pieces, store } from '@/shared/tests/bench'
import { forecast, range, standIn } from '@/shared/tests/samples'
import { around, plain, refused, server } from '@/shared/tests/server'
import PiecePlace from './PiecePlace.vue'

beforeEach(() => {
  standIn('lb')
  localStorage.clear()
})
afterEach(() => vi.unstubAllGlobals())

const known = piece('A', {
  thickness: { inch: '1.6', cm: '4.1' },
  length: { inch: '14', cm: '35.6' },
  skin: 'off',
  place: { store: 'Fridge 1', level: 2, slot: 1, text: 'Fridge 1, shelf 2, place 1', level_text: 'shelf 2' },
})
const answers = (): Record<string, unknown> => ({
  'GET /batches/J-01/pieces': pieces([], { pieces: [known, piece('B')] }),
  'GET /batches/J-01/cures': {
    cures: [cured('A', { id: 6, recipe: 'Wrong one', taken_back: 'for B' }), cured('A'), cured('B')],
    charges: [],
  },
  'GET /map': { stores: [store(), store({ name: 'Smoker', sort: 'smoker', levels: 4 })], nowhere: [] },
  'GET /plan?days=400&code=J-01': {
    tasks: [
      task({ words: 'Turn A' }),
      task({ uid: '2', words: 'Turn B', marks: ['B'] }),
      task({ uid: '3', words: 'Turned', state: 'done' }),
    ],
  },
})
const open = async (mark: string, given = answers()) => {
  const calls = server(given)
  const shown = mount(PiecePlace, { props: { code: 'J-01', mark }, global: around() })
  await vi.waitFor(() => expect(shown.find('h1').exists()).toBe(true))
  return { calls, shown }
}

describe('a piece, as its label opens it', () => {
  it('tells its size, skin, place, cure and what is to be done with it', async () => {
    const { shown } = await open('A')
    await vi.waitFor(() => expect(shown.text()).toContain('House dry'))
    const result = plain(shown.text())
    expect(result).toContain('14 in long, 1.6 in thick')
    expect(result).toContain('Fridge 1, shelf 2, place 1')
    expect(result).toContain('between 9 Mar and 14 Mar')
    expect(result).not.toContain('Wrong one')
    expect(shown.findAll('.words').map((words) => words.text())).toEqual(['Turn A'])
  })

  it('says what a finished pound of it will cost, by what it becomes itself', async () => {
    const [pulled, dried] = [forecast().price, range('7.10', '7.90', '8.80')]
    const group = (marks: string[], price: typeof pulled) => ({
      marks,
      price,
      course: null,
      label: '',
      weight: null,
    })
    const groups = [group(['B'], pulled), group(['A'], dried)]
    const given = { ...answers(), 'GET /batches/J-01/forecast': forecast({ price: null, groups }) }
    const { shown } = await open('A', given)
    await vi.waitFor(() => expect(plain(shown.text())).toContain('$7.10 to $8.80 a finished pound'))
    // where all become one thing, that of the batch
    const whole = await open('A', { ...answers(), 'GET /batches/J-01/forecast': forecast() })
    await vi.waitFor(() => expect(plain(whole.shown.text())).toContain('$3.40 to $3.80 a finished pound'))
  })

  it('says what is not known of it', async () => {
    const result = plain((await open('B')).shown.text())
    for (const words of ['not measured', 'not given', 'bacon of belly, by its cut', 'no place yet'])
      expect(result).toContain(words)
  })

  it('that is no more sends one to the diary', async () => {
    const { shown } = await open('Q')
    expect(plain(shown.text())).toContain('There is no piece “Q” any more')
    expect(shown.find('.act.first').exists()).toBe(false)
  })

  it('is measured, and a size that cannot be is said at its field', async () => {
    const given = answers()
    const { calls, shown } = await open('A', given)
    const path = 'POST /batches/J-01/pieces/A/facts'
    const fields = [{ path: 'thickness', code: 'not_positive', message: 'a thickness of nothing' }]
    given[path] = refused('bad_fields', { fields })
    await shown.get('section button.act').trigger('click')
    const boxes = shown.findAll('form input')
    await boxes[2]?.setValue('0')
    await shown.get('form').trigger('submit')
    await vi.waitFor(() => expect(shown.text()).toContain('a thickness of nothing'))
    given[path] = pieces([], { pieces: [{ ...known, thickness: { inch: '2', cm: '5.1' } }] })
    await boxes[2]?.setValue('2 in')
    await shown.get('form').trigger('submit')
    await vi.waitFor(() => expect(plain(shown.text())).toContain('2 in thick'))
    expect(shown.find('form').exists()).toBe(false)
    expect(calls.filter((call) => call.method === 'POST').map((call) => call.body)).toEqual([
      { length: '', width: '', thickness: '0', skin: '', product: '', place: null },
      { length: '', width: '', thickness: '2 in', skin: '', product: '', place: null },
    ])
  })

  it('is laid elsewhere, on a shelf of that store, or taken out', async () => {
    const given = { ...answers(), 'POST /batches/J-01/pieces/A/facts': pieces(['A']) }
    const { calls, shown } = await open('A', given)
    const lay = async (to: string, ...more: number[]) => {
      await shown.get('section button.act').trigger('click')
      await vi.waitFor(() => expect(shown.text()).toContain('Smoker'))
      const [, , store] = shown.findAll('form select')
      await store?.setValue(to)
      const rest = shown.findAll('form select').slice(3)
      for (const [at, value] of more.entries()) await rest[at]?.setValue(String(value))
      const levels = rest[0]?.findAll('option').length ?? 0
      await shown.get('form').trigger('submit')
      await vi.waitFor(() => expect(shown.find('form').exists()).toBe(false))
      return levels
    }
    expect(await lay('Smoker', 3, 2)).toBe(4)
    expect(await lay('')).toBe(0)
    const laid = calls.filter((call) => call.method === 'POST').map((call) => call.body)
    expect(laid).toMatchObject([
      { place: { store: 'Smoker', level: 3, slot: 2 } },
      { place: { store: '', level: 1, slot: 1 } },
    ])
  })
})
