import { mount } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Forecast } from '@/shared/api/client'
import { forecast, range, standIn } from '@/shared/tests/samples'
import { around, plain, server } from '@/shared/tests/server'
import ForecastNote from './ForecastNote.vue'

beforeEach(() => standIn('lb'))
afterEach(() => vi.unstubAllGlobals())

const open = (more: Partial<Forecast>) => {
  server({ 'GET /ways': { ways: [], methods: [] } })
  return mount(ForecastNote, {
    props: { code: 'J-01', forecast: forecast({ price: null, weight: null, steps: [], ...more }) },
    global: around(),
  })
}

describe('what a batch will come to', () => {
  it('has a line for each thing where its pieces become different ones, and no one price', () => {
    const group = { weight: null, course: 'pulled' as const, label: 'pulled', marks: ['A', 'C'] }
    const groups = [
      { ...group, price: range('4.10', '4.50', '5.20') },
      { ...group, marks: ['B'], course: null, label: 'not said', price: null },
      { ...group, marks: ['S'], label: 'cooked', course: 'cooked' as const, price: null },
    ]
    const lines = open({ groups }).findAll('li')
    expect(lines.map((line) => plain(line.text()))).toEqual([
      'A · C pulled$4.10 to $5.20',
      'B not saidsay what it becomes',
      'S cookednothing is to come',
    ])
  })
})
