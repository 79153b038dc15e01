import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import type { Batch, Pieces } from '@/shared/api/client'
import UsualBand from './UsualBand.vue'
import { stepAtHand } from './useWeighing'
import WeighActs from './WeighActs.vue'
import WeightPad from './WeightPad.vue'

const batch = (kinds: string[], next: string) =>
  ({
    strip: { columns: kinds.map((kind) => ({ kind })), to_come: [{ kind: next, label: next }] },
  }) as unknown as Batch
const pieces = (...kinds: string[][]) =>
  ({ pieces: kinds.map((done, at) => ({ mark: 'ABC'[at], kinds: done })) }) as unknown as Pieces

describe('the step at hand', () => {
  it('is the next to come where all pieces are alike', () => {
    expect(
      stepAtHand(batch(['bought', 'trim', 'rest'], 'smoke'), pieces(['trim', 'rest'], ['trim', 'rest'])),
    ).toBe('smoke')
    expect(stepAtHand(batch(['bought'], 'trim'), pieces([]))).toBe('trim')
  })
  it('stays the latest while a piece waits for it', () => {
    expect(stepAtHand(batch(['bought', 'trim', 'smoke'], 'chill'), pieces(['trim', 'smoke'], ['trim']))).toBe(
      'smoke',
    )
  })
})

describe('the weigh view', () => {
  it('types by knuckle: one point, no more than fits, and takes back', async () => {
    const pad = mount(WeightPad, { props: { modelValue: '', unit: 'lb' } })
    const press = async (word: string) => {
      await pad
        .findAll('button')
        .find((one) => one.text() === word)
        ?.trigger('click')
      const told = pad.emitted('update:modelValue')?.at(-1)?.[0] as string
      await pad.setProps({ modelValue: told })
    }
    for (const word of ['4', '.', '.', '1']) await press(word)
    expect(pad.props('modelValue')).toBe('4.1')
    await press('⌫')
    expect(pad.props('modelValue')).toBe('4.')
  })
  it('offers nothing that cannot be done', async () => {
    const acts = mount(WeighActs, {
      props: {
        word: 'Not steady …',
        canTake: false,
        canTare: false,
        hasTare: false,
        isTyping: false,
        doneWord: '',
        undoWord: '',
        swapWord: '',
      },
    })
    expect(acts.findAll('button').map((one) => one.attributes('disabled') !== undefined)).toEqual([
      true,
      true,
      false,
    ])
    await acts.setProps({ canTake: true, word: 'Take 5.72 lb for B', undoWord: 'Undo 5.71 lb for A' })
    await acts.find('.take').trigger('click')
    expect(acts.emitted('take')).toHaveLength(1)
    expect(acts.text()).toContain('Undo 5.71 lb for A')
  })
  it('draws a tick for each past batch inside and outside of the band', () => {
    const usual = {
      label: 'your last 3 hot smokes',
      kept: ['85.1', '88.5', '92.0'],
      low: '86.0',
      high: '91.5',
      learned: '',
    }
    const band = mount(UsualBand, { props: { usual, kept: '99.7' } })
    expect(band.findAll('line')).toHaveLength(1 + 3 + 1)
    expect(band.text()).toContain('86 %')
    const places = band.findAll('line').map((line) => Number(line.attributes('x1')))
    expect(Math.max(...places)).toBeLessThanOrEqual(470)
  })
})
