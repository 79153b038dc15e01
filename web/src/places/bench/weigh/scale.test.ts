import { flushPromises, mount } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { defineComponent } from 'vue'
import { standIn } from '@/shared/tests/samples'
import { around, refused, server } from '@/shared/tests/server'
import { FakeStream, standInForStreams } from '@/shared/tests/stream'
import { useScale } from '@/shared/scale/useScale'

let stream: () => FakeStream | undefined
beforeEach(() => {
  standIn('lb')
  localStorage.clear()
  vi.useFakeTimers()
  stream = standInForStreams()
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

const live = (grams: string, more: object = {}) => ({
  scale: 'bench',
  state: 'live',
  step: '5',
  grams,
  net: { lb: '4.19', kg: '1.900' },
  tare: null,
  steady: true,
  below: false,
  ...more,
})

async function listen(names: string[] | null, more: Record<string, unknown> = {}) {
  const calls = server({ 'GET /scales': names && { names }, ...more })
  let scale!: ReturnType<typeof useScale>
  const Ears = defineComponent({
    setup() {
      scale = useScale()
      return () => null
    },
  })
  mount(Ears, { global: around() })
  await vi.advanceTimersByTimeAsync(20)
  await flushPromises()
  return { scale, calls }
}
const say = async (result: object) => {
  stream()?.say(result)
  await flushPromises()
}

describe('a scale that is heard', () => {
  it('may be taken from only when it is steady, over nothing, and there', async () => {
    const { scale } = await listen(['bench'])
    expect(stream()?.url).toBe('/api/kitchens/test/scales/bench/stream')
    expect([scale.state.value, scale.isTakeable.value]).toEqual(['waiting', false])
    await say(live('1900', { steady: false }))
    expect([scale.words.value, scale.isTakeable.value]).toEqual(['moving', false])
    await say(live('1900'))
    expect([scale.words.value, scale.isTakeable.value]).toEqual(['steady', true])
    await say(live('-190', { below: true }))
    expect(scale.isTakeable.value).toBe(false)
    expect(scale.words.value).toContain('Below zero')
    await say({ scale: 'bench', state: 'over' })
    expect(scale.words.value).toContain('Too much on the scale')
    await say({ scale: 'bench', state: 'rubbish' })
    expect(scale.words.value).toContain('something unreadable')
  })

  it('stands still while it trembles by a step, and not when it moves on', async () => {
    const { scale } = await listen(['bench'])
    for (const grams of ['1900', '1905', '1895']) {
      await say(live(grams))
      expect(scale.event.value?.grams).toBe('1900')
    }
    await say(live('1910'))
    expect(scale.event.value?.grams).toBe('1910')
    // another tare, another weight
    await say(live('1905', { tare: { lb: '0.42', kg: '0.190' } }))
    expect(scale.event.value?.grams).toBe('1905')
  })

  it('follows a step that stays: what it was first steady at may have been on the swing', async () => {
    const { scale } = await listen(['bench'])
    const tenths = async (grams: string, count: number) => {
      for (let tenth = 0; tenth < count; tenth++) {
        await say(live(grams, { at: Date.now() }))
        await vi.advanceTimersByTimeAsync(100)
      }
      return scale.event.value?.grams
    }
    expect(await tenths('1860', 20)).toBe('1860')
    expect(await tenths('1855', 9)).toBe('1860')
    // one reading of the step before, and it begins anew
    await say(live('1860'))
    expect(await tenths('1855', 10)).toBe('1860')
    expect(await tenths('1855', 1)).toBe('1855')
    expect(await tenths('1860', 5)).toBe('1855')
  })

  it('gives a load once: again when it was lifted, when another lies there, or when it is put back', async () => {
    const { scale } = await listen(['bench'])
    const takeable = async (grams: string, more: object = {}) => {
      await say(live(grams, more))
      return scale.isTakeable.value
    }
    await say(live('1900'))
    scale.took()
    expect([scale.isTaken.value, scale.isTakeable.value]).toEqual([true, false])
    expect(await takeable('1905')).toBe(false)
    scale.putBack()
    expect(scale.isTakeable.value).toBe(true)
    scale.took()
    expect(await takeable('1900', { steady: false })).toBe(false)
    expect(await takeable('1900')).toBe(true)
    scale.took()
    expect(await takeable('1910')).toBe(true)
    // with nothing there, nothing is taken
    await say(live('0'))
    scale.took()
    expect(scale.isTaken.value).toBe(false)
  })

  it('says within two seconds that it has gone silent, from the first moment on', async () => {
    const { scale } = await listen(['bench'])
    await vi.advanceTimersByTimeAsync(2000)
    expect(scale.words.value).toContain('has stopped sending')
    await say(live('1900'))
    expect(scale.isTakeable.value).toBe(true)
    await vi.advanceTimersByTimeAsync(1500)
    expect(scale.isTakeable.value).toBe(true)
    await vi.advanceTimersByTimeAsync(500)
    expect([scale.state.value, scale.isTakeable.value]).toEqual(['silent', false])
  })
})

describe('which scale', () => {
  it('is asked where there are more than one, and remembered', async () => {
    const { scale } = await listen(['bench', 'floor', 'van'])
    expect(scale.words.value).toBe('3 scales: choose the one you are using.')
    expect(stream()).toBeUndefined()
    scale.choose('floor')
    await flushPromises()
    expect(stream()?.url).toContain('/scales/floor/stream')
    expect((await listen(['bench', 'floor'])).scale.name.value).toBe('floor')
  })

  it('forgets what one said when another is chosen', async () => {
    const { scale } = await listen(['bench', 'floor'])
    scale.choose('bench')
    await flushPromises()
    await say(live('1900'))
    expect(scale.isTakeable.value).toBe(true)
    scale.choose('floor')
    await flushPromises()
    expect([scale.event.value, scale.isTakeable.value]).toEqual([null, false])
    expect(FakeStream.opened.map((one) => one.readyState)).toEqual([FakeStream.CLOSED, 1])
  })

  it('is none without network, until that is back', async () => {
    const { scale } = await listen(null)
    expect(scale.words.value).toContain('No scale here. Type the weight in.')
    server({ 'GET /scales': { names: ['bench'] } })
    window.dispatchEvent(new Event('online'))
    await flushPromises()
    await vi.advanceTimersByTimeAsync(20)
    expect(stream()?.url).toContain('/scales/bench/stream')
  })
})

describe('telling it to tare', () => {
  it('says so when it would not', async () => {
    const result = {
      'POST /scales/bench/command': refused('no_scale', { detail: 'The scale is not there.' }),
    }
    const { scale, calls } = await listen(['bench'], result)
    await scale.command('tare')
    expect(scale.problem.value?.detail).toBe('The scale is not there.')
    expect(calls.at(-1)?.body).toEqual({ command: 'tare' })
    server({ 'POST /scales/bench/command': { names: ['bench'] } })
    await scale.command('clear')
    expect(scale.problem.value).toBeNull()
  })
})
