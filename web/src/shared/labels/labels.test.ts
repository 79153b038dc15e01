import { mount } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { standIn } from '@/shared/tests/samples'
import { around, refused, server } from '@/shared/tests/server'
import LabelsPanel from './LabelsPanel.vue'

beforeEach(() => standIn('lb'))
afterEach(() => vi.unstubAllGlobals())

const open = async (answer: unknown, marks?: string[]) => {
  const calls = server({ 'POST /batches/J-01/labels': answer })
  const shown = mount(LabelsPanel, { props: { code: 'J-01', ...(marks ? { marks } : {}) }, global: around() })
  await shown.get('button').trigger('click')
  return { calls, shown, sheet: () => shown.get('a').attributes('href') }
}

describe('labels', () => {
  it('come as a sheet of the paper one has, of pieces or of tubs', async () => {
    const { shown, sheet } = await open({ pictures: [] })
    expect(sheet()).toBe('/api/kitchens/test/batches/J-01/labels.pdf?paper=letter')
    await shown.get('select').setValue('a4')
    await shown.get('[role="checkbox"]').trigger('click')
    expect(sheet()).toBe('/api/kitchens/test/batches/J-01/labels.pdf?paper=a4&tubs=true')
  })

  it('of one piece name it, and know no tubs', async () => {
    const { shown, sheet } = await open({ pictures: [] }, ['A 1'])
    expect(sheet()).toContain('&marks=A%201')
    expect(shown.find('[role="checkbox"]').exists()).toBe(false)
  })

  it('are shown as the printer gave them out', async () => {
    const { calls, shown } = await open({
      pictures: ['data:image/png;base64,AA', 'data:image/png;base64,AB'],
    })
    await shown.get('.first').trigger('click')
    await vi.waitFor(() => expect(shown.findAll('img')).toHaveLength(2))
    expect(shown.get('img').attributes('alt')).toBe('Label 1 as printed')
    expect(calls[0]?.body).toEqual({ marks: [], tubs: false, packs: false })
  })

  it('that no printer prints are said, and can be tried again', async () => {
    const { shown } = await open(refused('no_printer', { detail: 'The label printer is not there.' }))
    await shown.get('.first').trigger('click')
    await vi.waitFor(() => expect(shown.get('[role="alert"]').text()).toContain('printer is not there'))
    expect(shown.get('.first').attributes('disabled')).toBeUndefined()
  })
})
