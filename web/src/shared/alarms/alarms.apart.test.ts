import { flushPromises, mount } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { standIn } from '@/shared/tests/samples'
import { around, server } from '@/shared/tests/server'
import AlarmList from './AlarmList.vue'
import AlarmSound from './AlarmSound.vue'
import { ring } from './sound'
import { type Alarm, isLoud } from './useAlarms'

vi.mock('./sound', () => ({ ring: vi.fn() }))
const alarm = (more: Partial<Alarm> = {}): Alarm => ({
  fire: 3,
  name: 'Jowl',
  key: 'stage 1',
  text: 'Next stage is due.',
  is_quiet: false,
  ...more,
})

describe('alarms', () => {
  beforeEach(() => {
    standIn('lb')
    vi.useFakeTimers()
    vi.mocked(ring).mockClear()
  })
  afterEach(() => {
    isLoud.value = false
    vi.useRealTimers()
    vi.unstubAllGlobals()
  })

  async function heard(alarms: Alarm[], wished = true) {
    isLoud.value = wished
    const answer = { alarms, pieces: 2 }
    server({ 'GET /alarms': answer })
    mount(AlarmSound, { global: around() })
    await flushPromises()
    await vi.advanceTimersByTimeAsync(1)
    return answer
  }

  it('ring where sound is wished, and again until they are quieted', async () => {
    const answer = await heard([alarm()])
    expect(ring).toHaveBeenCalledTimes(1)
    await vi.advanceTimersByTimeAsync(20_000)
    expect(ring).toHaveBeenCalledTimes(2)
    answer.alarms = [alarm({ is_quiet: true })]
    await vi.advanceTimersByTimeAsync(60_000)
    expect(ring).toHaveBeenCalledTimes(2)
    answer.alarms = [alarm({ is_quiet: true }), alarm({ key: 'pull' })]
    await vi.advanceTimersByTimeAsync(10_000)
    expect(ring).toHaveBeenCalledTimes(3)
  })

  it('make no sound unasked', async () => {
    await heard([alarm()], false)
    await vi.advanceTimersByTimeAsync(30_000)
    expect(ring).not.toHaveBeenCalled()
  })

  it('stay in sight when they are quieted, and lead to their fire', () => {
    const list = mount(AlarmList, {
      props: { alarms: [alarm(), alarm({ key: 'late', is_quiet: true })], named: true },
      global: around(),
    })
    expect(list.findAll('li').map((one) => one.classes('quieted'))).toEqual([false, true])
    expect(list.text()).toContain('Jowl')
  })
})
