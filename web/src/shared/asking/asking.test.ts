import { flushPromises, mount } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { defineComponent, nextTick, ref } from 'vue'
import { noConnection, ProblemError } from '@/shared/api/client'
import { around } from '@/shared/tests/server'
import { useAsking } from './useAsking'

beforeEach(() => {
  vi.useFakeTimers()
})
afterEach(() => {
  vi.useRealTimers()
})

/** Something that asks `question`; each answer is given by hand, in whatever order. */
function asking(more: { wait?: number; steady?: boolean } = {}) {
  const question = ref<{ weight: string } | null>({ weight: '1' })
  const sent: { weight: string; answer: (said: string) => void; refuse: () => void }[] = []
  const send = ({ weight }: { weight: string }) =>
    new Promise<string>((resolve, reject) => {
      const refuse = () => reject(new ProblemError(noConnection))
      sent.push({ weight, answer: resolve, refuse })
    })
  const seen: { it?: ReturnType<typeof useAsking<{ weight: string }, string>> } = {}
  const page = defineComponent({
    setup: () => {
      seen.it = useAsking('weight', () => question.value, send, more)
      return () => null
    },
  })
  mount(page, { global: around() })
  if (!seen.it) throw new Error('nothing asks')
  const type = async (weight: string | null, wait = 200) => {
    question.value = weight === null ? null : { weight }
    await nextTick()
    await vi.advanceTimersByTimeAsync(wait)
  }
  return { ...seen.it, sent, type }
}

describe('asking as one types', () => {
  it('asks at once, then when the typing pauses', async () => {
    const { sent, type } = asking()
    await flushPromises()
    await type('12', 100)
    await type('123')
    expect(sent.map((one) => one.weight)).toEqual(['1', '123'])
  })

  it('counts the answer to what is typed now, in whatever order answers come', async () => {
    const { answer, sent, type } = asking()
    await flushPromises()
    await type('2')
    sent[1]?.answer('two')
    await vi.advanceTimersByTimeAsync(1)
    sent[0]?.answer('one')
    await vi.advanceTimersByTimeAsync(1)
    expect(answer.value).toBe('two')
  })

  it('keeps the answer before until the next is here', async () => {
    const { answer, isAsking, sent, type } = asking()
    await flushPromises()
    sent[0]?.answer('one')
    await vi.advanceTimersByTimeAsync(1)
    await type('2')
    expect([answer.value, isAsking.value]).toEqual(['one', true])
    sent[1]?.answer('two')
    await vi.advanceTimersByTimeAsync(1)
    expect([answer.value, isAsking.value]).toEqual(['two', false])
  })

  it('has no answer to no question, nor where it was refused, and asks again on request', async () => {
    const { answer, problem, again, sent, type } = asking()
    await flushPromises()
    sent[0]?.answer('one')
    await type(null)
    expect([answer.value, problem.value]).toEqual([null, null])
    await type('2')
    sent[1]?.refuse()
    await vi.advanceTimersByTimeAsync(1)
    expect([answer.value, problem.value?.code]).toEqual([null, 'no_connection'])
    again()
    await vi.advanceTimersByTimeAsync(1)
    sent[2]?.answer('two')
    await vi.advanceTimersByTimeAsync(1)
    expect([answer.value, problem.value]).toEqual(['two', null])
  })

  it('keeps what was answered before a refusal apart, and nothing once there is no question', async () => {
    const { answer, last, sent, type } = asking()
    await flushPromises()
    sent[0]?.answer('one')
    await type('2')
    sent[1]?.refuse()
    await vi.advanceTimersByTimeAsync(1)
    expect([answer.value, last.value]).toEqual([null, 'one'])
    await type('3')
    expect([answer.value, last.value]).toEqual([null, 'one'])
    sent[2]?.answer('three')
    await vi.advanceTimersByTimeAsync(1)
    expect([answer.value, last.value]).toEqual(['three', 'three'])
    await type(null)
    await type('4')
    // another piece on the scale: the weight before says nothing of it
    expect([answer.value, last.value]).toEqual([null, null])
  })

  it('asks steadily while it changes where that is wanted', async () => {
    const { sent, type } = asking({ wait: 200, steady: true })
    await flushPromises()
    for (const weight of ['2', '3', '4', '5', '6', '7']) await type(weight, 100)
    await vi.advanceTimersByTimeAsync(200)
    expect(sent.length).toBeGreaterThanOrEqual(4)
    expect(sent.at(-1)?.weight).toBe('7')
  })
})
