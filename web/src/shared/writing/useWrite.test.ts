import { QueryClient, VueQueryPlugin } from '@tanstack/vue-query'
import { mount } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { defineComponent, nextTick, ref } from 'vue'
import { noConnection, type Problem, ProblemError } from '@/shared/api/client'
import { setOwner } from '@/shared/api/owner'
import { useDraft } from './useDraft'
import { useWrite } from './useWrite'

const refusal: Problem = { ...noConnection, status: 422, code: 'bad_fields', detail: 'look again' }

/** A server that gives the answers it was set to, in order, and notes the keys it saw. */
function server(...answers: (Problem | 'taken')[]) {
  const keys: string[] = []
  const send = async (_body: object, key: string): Promise<string> => {
    keys.push(key)
    const answer = answers[keys.length - 1] ?? 'taken'
    if (answer === 'taken') return answer
    throw new ProblemError(answer)
  }
  return { keys, send }
}
const nothing = (): void => undefined

beforeEach(() => localStorage.clear())

describe('a write', () => {
  it('keeps its key when the answer is lost, and takes a new one once it is taken', async () => {
    const { keys, send } = server(noConnection, 'taken', 'taken')
    const { write, retry, state } = useWrite('a', send)
    await write({ weight: '1 lb' }, nothing)
    expect(state.value).toBe('failed')
    await retry()
    expect(state.value).toBe('saved')
    await write({ weight: '1 lb' }, nothing)
    expect(keys[1]).toBe(keys[0])
    expect(keys[2]).not.toBe(keys[0])
  })

  it('keeps its key over a reload, as long as the body is the same', async () => {
    const { keys, send } = server(noConnection, noConnection, 'taken')
    await useWrite('a', send).write({ weight: '1 lb' }, nothing)
    await useWrite('a', send).write({ weight: '1 lb' }, nothing)
    await useWrite('a', send).write({ weight: '2 lb' }, nothing)
    expect(keys[1]).toBe(keys[0])
    expect(keys[2]).not.toBe(keys[0])
  })

  it('takes a new key after a refusal', async () => {
    const { keys, send } = server(refusal, 'taken')
    const { write, state, problem } = useWrite('a', send)
    await write({ weight: 'x' }, nothing)
    expect([state.value, problem.value?.detail]).toEqual(['refused', 'look again'])
    await write({ weight: 'x' }, nothing)
    expect(keys[1]).not.toBe(keys[0])
  })

  it('drops a refusal when something else is typed', async () => {
    const typed = ref('x')
    const { write, state, problem } = useWrite('a', server(refusal).send, () => typed.value)
    await write({}, nothing)
    typed.value = '4 lb'
    await nextTick()
    expect([state.value, problem.value]).toEqual(['idle', null])
  })

  it('does not hold the faults of what was sent against what was typed since', async () => {
    const typed = ref('x')
    const fault = { path: 'weight', message: 'not a weight', code: 'bad' }
    const { send } = server({ ...refusal, fields: [fault] }, { ...refusal, fields: [fault] })
    const { write, state, problem } = useWrite('a', send, () => typed.value)
    const answered = write({}, nothing)
    typed.value = '4 lb'
    await answered
    expect([state.value, problem.value?.detail, problem.value?.fields]).toEqual(['refused', 'look again', []])
    await nextTick()
    await write({}, nothing)
    expect(problem.value?.fields).toEqual([fault])
  })

  it.each([true, false])('asks anew for what is shown if its form was left meanwhile: %s', async (isLeft) => {
    let answer: ((taken: string) => void) | undefined
    const queryClient = new QueryClient()
    const asked = vi.spyOn(queryClient, 'invalidateQueries')
    let form!: ReturnType<typeof useWrite<object, string>>
    const Form = defineComponent({
      setup() {
        form = useWrite('a', () => new Promise<string>((resolve) => (answer = resolve)))
        return () => null
      },
    })
    const page = mount(Form, { global: { plugins: [[VueQueryPlugin, { queryClient }]] as never } })
    const written = form.write({}, nothing)
    if (isLeft) page.unmount()
    answer?.('taken')
    await written
    expect(asked).toHaveBeenCalledTimes(isLeft ? 1 : 0)
  })

  it('hands on what went wrong in our own code', async () => {
    const { write } = useWrite('a', () => Promise.reject(new TypeError('ours')))
    await expect(write({}, nothing)).rejects.toThrow('ours')
  })
})

describe('a draft', () => {
  const blank = () => ({ name: '', rows: [] as string[] })

  it('is there again after a reload, until it is cleared', () => {
    const first = useDraft('d', blank)
    first.draft.name = 'jowl'
    first.draft.rows.push('A')
    expect(useDraft('d', blank).draft).toEqual({ name: 'jowl', rows: ['A'] })
    first.clear()
    expect(localStorage.length).toBe(0)
    expect(first.draft).toEqual(blank())
  })

  it('starts blank where what was kept cannot be read, and forgets fields it no longer knows', () => {
    localStorage.setItem('dolmetsch::d', '{')
    expect(useDraft('d', blank).draft).toEqual(blank())
    localStorage.setItem('dolmetsch::d', '{"name":"loin","old":1}')
    expect(useDraft('d', blank).draft).toEqual({ name: 'loin', rows: [] })
  })

  it('belongs to the cook who typed it, in their kitchen', () => {
    const as = (username: string, kitchen = 'canteen') => {
      setOwner({ kitchen, username })
      return useDraft('d', blank).draft
    }
    as('maren').name = 'of maren'
    expect(as('odo').name).toBe('')
    expect(as('maren', 'other').name).toBe('')
    expect(as('maren').name).toBe('of maren')
    setOwner(null)
  })
})
