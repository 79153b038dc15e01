import { flushPromises, mount } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { judged, standIn } from '@/shared/tests/samples'
import { around, plain, refused, server } from '@/shared/tests/server'
import ImportPlace from './ImportPlace.vue'

beforeEach(() => {
  standIn('lb')
  localStorage.clear()
})
afterEach(() => vi.unstubAllGlobals())

describe('a document brought in', () => {
  const one = {
    code: 'J-02',
    name: 'Old jowl',
    cut: 'jowl',
    entries: 14,
    warnings: [
      { code: 'gain', severity: 'care' as const, subject: 'steps[1]', message: 'look again', source: '' },
    ],
  }
  const house = judged().house
  const strip = { columns: [], to_come: [] }
  const dry = { written: false, batches: [{ ...one, house, strip }] }

  const choose = async (text: string) => {
    const shown = mount(ImportPlace, { global: around() })
    const input = shown.get<HTMLInputElement>('input[type="file"]')
    const file = new File([text], 'jowl.json', { type: 'application/json' })
    Object.defineProperty(input.element, 'files', { value: [file], configurable: true })
    await input.trigger('change')
    await flushPromises()
    return shown
  }

  it('is shown first and made only once confirmed, under one key', async () => {
    const calls = server({
      'POST /imports?dry_run=true': dry,
      'POST /imports?dry_run=false': { ...dry, written: true },
    })
    const shown = await choose('{}')
    await vi.waitFor(() => expect(shown.text()).toContain('not imported yet'))
    expect(plain(shown.text())).toContain('at $3.42 a sliced pound')
    expect(shown.text()).toContain('look again')
    expect(calls.map((call) => call.path)).toEqual(['/imports?dry_run=true'])
    await shown.get('form').trigger('submit')
    await vi.waitFor(() => expect(plain(shown.text())).toContain('Imported: J-02 Old jowl'))
    expect(calls[1]?.body).toEqual({ document: '{}' })
  })

  it('is refused with its place, and can be checked again', async () => {
    const result = refused('bad_document', { detail: 'step 3, weigh.Q: there is no piece “Q”.' })
    server({ 'POST /imports?dry_run=true': result })
    const shown = await choose('{"lots": []}')
    await vi.waitFor(() => expect(shown.get('[role="alert"]').text()).toContain('there is no piece “Q”'))
    expect(shown.find('form').exists()).toBe(false)
  })
})
