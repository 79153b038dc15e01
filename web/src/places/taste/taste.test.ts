import { flushPromises, mount } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Schemas } from '@/shared/api/client'
import { around, refused, server } from '@/shared/tests/server'
import TastePlace from './TastePlace.vue'

beforeEach(() => localStorage.clear())
afterEach(() => vi.unstubAllGlobals())

describe('a taster’s phone', () => {
  const scales = ['salt', 'smoke', 'sweetness', 'texture', 'color'] as const
  const table = {
    kitchen: 'Test kitchen',
    closes_at: '2026-11-28T10:00:00Z',
    plates: ['482', '117'],
    scales: [...scales],
    least: 1,
    most: 9,
    scored_at: null,
  }
  const device = '0b1d1e5c-0000-4000-8000-000000000000'

  async function open(answer: unknown, more: Record<string, unknown> = {}) {
    localStorage.setItem('dolmetsch:taster', device)
    const calls = server({ [`GET /api/tastings/tok?device=${device}`]: answer, ...more })
    const shown = mount(TastePlace, { props: { token: 'tok' }, global: around() })
    await flushPromises()
    return { shown, calls }
  }

  it('keeps the order it was given, and hands in only what is whole', async () => {
    const handed = { ...table, scored_at: '2026-11-27T19:12:00Z' }
    const { shown, calls } = await open(table, { 'POST /api/tastings/tok/sheets': handed })
    expect(shown.findAll('h2').map((head) => head.text())).toEqual(['Plate 482', 'Plate 117'])
    const send = shown.find('button[type=submit]')
    expect(send.attributes('disabled')).toBeDefined()
    const words = { salt: 'Salt', smoke: 'Smoke', sweetness: 'Sweetness', texture: 'Texture', color: 'Color' }
    for (const [place, code] of table.plates.entries())
      for (const scale of scales) {
        const rows = shown.get(`[aria-label="Plate ${code}"]`).findAll('fieldset')
        const row = rows.find((one) => one.text().startsWith(words[scale]))
        await row?.get(`input[value="${7 - place}"]`).setValue()
      }
    expect(shown.text()).toContain('Say which one you would have again.')
    await shown.get('input[value="117"]').setValue()
    await shown.find('form').trigger('submit')
    await flushPromises()
    const sent = calls.find((call) => call.method === 'POST')?.body as Schemas['SheetIn']
    expect(sent.again).toBe('117')
    expect(sent.device).toBe(device)
    expect(sent.plates[1]).toEqual({ code: '117', salt: 6, smoke: 6, sweetness: 6, texture: 6, color: 6 })
    expect(shown.text()).toContain('Thank you')
    expect(localStorage.getItem('dolmetsch:tasting:tok')).toBeNull()
  })

  it('says when a link is over', async () => {
    const { shown } = await open(refused('closed', { status: 404, detail: 'This tasting is over.' }))
    expect(shown.text()).toContain('This tasting is over.')
  })
})
