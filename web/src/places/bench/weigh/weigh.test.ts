import { flushPromises, mount } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { computed, ref } from 'vue'
import type { Batch, Cures, Entry, Pieces } from '@/shared/api/client'
import { entry, standIn } from '@/shared/tests/samples'
import { server } from '@/shared/tests/server'
import UsualBand from './UsualBand.vue'
import { stepAtHand, useWeighing } from './useWeighing'
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

describe('a piece in the cure', () => {
  it('comes out of it next, whatever the others wait for', () => {
    const cures = { cures: [{ mark: 'B', is_under_way: true }] } as unknown as Cures
    const all = [batch(['bought', 'trim'], 'rest'), pieces(['trim'], ['trim'])] as const
    expect(stepAtHand(...all, cures)).toBe('cure')
    expect(stepAtHand(...all)).toBe('rest')
    expect(stepAtHand(all[0], pieces(['trim'], ['trim', 'cure']), cures)).not.toBe('cure')
  })
})

describe('a piece out of the fire', () => {
  const fire = {
    mark: 'A',
    fire: 3,
    name: 'Night fire',
    kind: 'smoke',
    begun_at: '2026-03-02T06:00:00Z',
    out_at: '2026-03-02T17:30:00Z',
    is_weighed: false,
    minutes: '20',
    used: [{ what: 'oak pellets', price: '1.35' }],
  }
  const weigh = async (kind: string, more: Partial<typeof fire> = {}) => {
    standIn('lb')
    localStorage.clear()
    window.dispatchEvent(new StorageEvent('storage', { key: null }))
    const calls = server({ 'POST /batches/J-01/entries': { entry: 9, batch: {} } })
    useWeighing({
      code: ref('J-01'),
      kind: ref(kind),
      batch: ref({ ...batch(['bought'], kind), log: [], seen: 7, pieces: [] } as unknown as Batch),
      pieces: ref(pieces([])),
      cures: computed(() => undefined),
      fires: computed(() => [{ ...fire, ...more }]),
    }).takeWeight('3 lb', '')
    await vi.waitFor(() => expect(calls).toHaveLength(1))
    return (calls[0]?.body as { content: object }).content
  }
  afterEach(() => vi.unstubAllGlobals())

  it('is the one on the scale, before those that were in no fire', () => {
    standIn('lb')
    localStorage.clear()
    const { current } = useWeighing({
      code: ref('J-01'),
      kind: ref('smoke'),
      batch: ref({ ...batch(['bought'], 'smoke'), log: [], seen: 7, pieces: [] } as unknown as Batch),
      pieces: ref(pieces([], [])),
      cures: computed(() => undefined),
      fires: computed(() => [{ ...fire, mark: 'B' }]),
    })
    expect(current.value?.mark).toBe('B')
  })

  it('takes its share of fuel and work into its step, once', async () => {
    const line = { what: 'oak pellets', price: '1.35', group: 'fuel', pieces: ['A'] }
    expect(await weigh('smoke')).toMatchObject({ kind: 'smoke', minutes: '20', used: [line] })
    const bare = { minutes: '', used: [] }
    expect(await weigh('smoke', { is_weighed: true })).toMatchObject(bare)
    expect(await weigh('chill')).toMatchObject(bare)
    expect(await weigh('smoke', { minutes: '0', used: [] })).toMatchObject(bare)
  })
})

describe('the parts of a piece that is cut', () => {
  it('are there after a reload, when the step is not known at first', () => {
    standIn('lb')
    localStorage.clear()
    const begun = { ...batch(['bought'], 'trim'), pieces: [{ mark: 'A', free_marks: ['A1', 'A2'] }] }
    const open = (kind: string) =>
      useWeighing({
        code: ref('J-01'),
        kind: ref(kind),
        batch: ref(begun as unknown as Batch),
        pieces: ref(pieces([])),
        cures: computed(() => undefined),
        fires: computed(() => undefined),
      })
    open('trim').takePart('3 lb', null)
    const { draft, nextMark } = open('')
    expect(draft.parts).toMatchObject([{ mark: 'A1', weight: '3 lb' }])
    expect(nextMark.value).toBe('A2')
  })
})

describe('two pieces mixed up at the scale', () => {
  const weighed = (sequence: number, mark: string, weight: string, more: Partial<Entry> = {}) => {
    const content = { ...entry(1).content, kind: 'smoke', weights: [{ mark, weight }] } as Entry['content']
    return entry(sequence, { content, ...more })
  }
  const work = (log: Entry[]) => {
    const result = { ...batch(['bought', 'trim', 'smoke'], 'chill'), log, seen: 7, pieces: [] }
    return useWeighing({
      code: ref('J-01'),
      kind: ref('smoke'),
      batch: ref(result as unknown as Batch),
      pieces: ref(pieces(['smoke'], ['smoke'])),
      cures: computed(() => undefined),
      fires: computed(() => undefined),
    })
  }
  beforeEach(() => {
    standIn('lb')
    localStorage.clear()
    window.dispatchEvent(new StorageEvent('storage', { key: null }))
  })
  afterEach(() => vi.unstubAllGlobals())

  it('get each other’s weight with one touch, by corrections that say why', async () => {
    const calls = server({ 'POST /batches/J-01/entries': { entry: 9, batch: {} } })
    const { swap, swapWords } = work([weighed(6, 'A', '4.1 lb'), weighed(7, 'B', '3.9 lb')])
    expect(swapWords.value).toBe('Swap the weights of A and B')
    swap()
    await flushPromises()
    await vi.waitFor(() => expect(calls).toHaveLength(2))
    expect(calls.map((call) => call.body)).toMatchObject([
      { corrects: 106, seen: 7, content: { weights: [{ mark: 'A', weight: '3.9 lb' }] } },
      { corrects: 107, seen: 8, content: { weights: [{ mark: 'B', weight: '4.1 lb' }] } },
    ])
    expect(calls[0]?.body).toMatchObject({ reason: 'A and B mixed up at the scale' })
  })

  it('is not offered where there are no two of this step', () => {
    const [a, b] = [weighed(6, 'A', '4.1 lb'), weighed(7, 'B', '3.9 lb')]
    expect(work([a]).swapWords.value).toBe('')
    expect(work([a, weighed(7, 'A', '3.9 lb')]).swapWords.value).toBe('')
    expect(work([a, { ...b, overruled_by: 8 }]).swapWords.value).toBe('')
    expect(work([entry(5), b]).swapWords.value).toBe('Swap the weights of A and B')
    const other = { ...b, content: { ...b.content, kind: 'rest' } as Entry['content'] }
    expect(work([a, other]).swapWords.value).toBe('')
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
      const result = pad.emitted('update:modelValue')?.at(-1)?.[0] as string
      await pad.setProps({ modelValue: result })
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
