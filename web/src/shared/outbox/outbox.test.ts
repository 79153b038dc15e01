import { flushPromises } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { setOwner } from '@/shared/api/owner'
import { SAY_SO } from '@/shared/api/patience'
import { discard, insist, isEntry, type Letter, onArrived, post, send, tryAgain, useOutbox } from './outbox'

type Call = { path: string; key: string; cook: string; body: Record<string, unknown> }
let calls: Call[] = []
let answers: (object | 'cut')[] = []
const problem = (code: string, more: object = {}) => ({
  status: 409,
  result: { type: '', title: '', status: 409, code, detail: code, fields: [], changes: [], ...more },
})
const made = (entry: number) => ({ status: 201, result: { entry, batch: { seen: entry } } })

beforeEach(async () => {
  localStorage.clear()
  window.dispatchEvent(new StorageEvent('storage', { key: null }))
  calls = []
  answers = []
  vi.stubGlobal('fetch', async (path: string, result: RequestInit) => {
    const answer = answers.shift() ?? 'cut'
    calls.push({
      path,
      key: (result.headers as Record<string, string>)['Idempotency-Key'] ?? '',
      cook: (result.headers as Record<string, string>)['Dolmetsch-Cook'] ?? '',
      body: JSON.parse(result.body as string) as Record<string, unknown>,
    })
    if (answer === 'cut') throw new TypeError('no network')
    const { status, result: body } = answer as { status: number; result: object }
    return Response.json(body, { status })
  })
  await flushPromises()
})

const weigh = (mark: string, seen = 4, code = 'L-01') =>
  post({
    path: `/batches/${code}/entries`,
    body: { content: { act: 'withdraw' as const }, seen, corrects: null, mark },
    words: `4.1 lb for ${mark}`,
    code,
    mark,
  })
const note = () => post({ path: '/notes', body: { text: 'so' }, words: 'a note', code: 'note', mark: '' })
const kept = (): Letter[] => useOutbox().letters.value

describe('the outbox', () => {
  it('keeps what cannot be sent and sends it once, in order, under the same key', async () => {
    weigh('A')
    await flushPromises()
    weigh('B')
    note()
    await flushPromises()
    expect(kept().map((letter) => letter.words)).toEqual(['4.1 lb for A', '4.1 lb for B', 'a note'])
    const firstKey = calls[0]?.key
    calls = []
    answers = [made(5), made(6), { status: 201, result: {} }]
    await send()
    expect(calls.map((call) => call.path)).toEqual([
      '/batches/L-01/entries',
      '/batches/L-01/entries',
      '/notes',
    ])
    expect(calls[0]?.key).toBe(firstKey)
    // each of them moves the batch on by one
    expect(calls.map((call) => call.body['seen'])).toEqual([4, 5, undefined])
    expect(kept()).toEqual([])
  })

  it('corrects what a wrong clock stamped before it was measured, and never what was typed', async () => {
    // a page just opened: it has not measured its clock yet
    vi.resetModules()
    const { post, send, useOutbox } = await import('./outbox')
    const kept = (): Letter[] => useOutbox().letters.value
    const typed = '2026-03-01T08:00:00.000Z'
    let isOn = false
    const sent: { method: string; body: Record<string, string> | null }[] = []
    vi.stubGlobal('fetch', (_: string, { method = 'GET', body }: RequestInit) => {
      if (!isOn) return Promise.reject(new TypeError('no network'))
      sent.push({ method, body: body ? (JSON.parse(String(body)) as Record<string, string>) : null })
      const Date_ = new Date(Date.now() + 3 * 86_400_000).toUTCString()
      return Promise.resolve(Response.json({}, { status: 201, headers: { Date: Date_ } }))
    })
    const happened_at = new Date().toISOString()
    const letter = { path: '/notes', words: 'a note', code: 'note', mark: '' }
    post({ ...letter, body: { text: typed, happened_at } })
    await flushPromises()
    // without an answer it was not sent at all, so that it can still be corrected
    expect(kept().map((one) => one.tried)).toEqual([undefined])
    isOn = true
    await send()
    expect(sent.map((one) => one.method)).toEqual(['HEAD', 'POST'])
    const { text, happened_at: stamped } = sent[1]?.body ?? {}
    expect(text).toBe(typed)
    const moved = Date.parse(stamped ?? '') - Date.parse(happened_at)
    expect(Math.abs(moved - 3 * 86_400_000)).toBeLessThan(2_000)
    expect(kept()).toEqual([])
  })

  it('is still there for a page opened anew', async () => {
    weigh('A')
    await flushPromises()
    const stored = Object.keys(localStorage).filter((name) => name.startsWith('dolmetsch:outbox:'))
    expect(stored).toHaveLength(1)
    window.dispatchEvent(new StorageEvent('storage', { key: null }))
    expect(kept()[0]?.mark).toBe('A')
  })

  it('shows a refusal, holds back what comes after it in that batch, and lets the rest go', async () => {
    weigh('A')
    await flushPromises()
    weigh('B')
    weigh('C', 9, 'B-02')
    await flushPromises()
    answers = [problem('moved_on', { changes: ['Odo recorded “Fried”'] }), made(10)]
    await send()
    expect(useOutbox().refused.value.map((letter) => letter.mark)).toEqual(['A'])
    expect(kept().map((letter) => letter.mark)).toEqual(['A', 'B'])
    // all the same: on top of what is there now, under a new key, and the next one after it
    const [refused] = useOutbox().refused.value
    calls = []
    answers = [made(8), made(9)]
    if (refused) insist(refused, 7)
    await flushPromises()
    expect(calls.map((call) => call.body['seen'])).toEqual([7, 8])
    expect(calls[0]?.key).not.toBe(refused?.key)
    expect(kept()).toEqual([])
  })

  it('lets go of a refused one together with its undo', async () => {
    const letter = weigh('A')
    await flushPromises()
    post({ ...letter, words: 'taken back', mark: '', undoes: letter.key })
    await flushPromises()
    answers = [problem('bad_fields')]
    await send()
    const [refused] = useOutbox().refused.value
    if (refused) discard(refused)
    await flushPromises()
    expect(kept()).toEqual([])
  })

  it('undoes by the entry that came of it, once that is known', async () => {
    const letter = weigh('A')
    await flushPromises()
    post({
      path: '/batches/L-01/entries',
      body: { content: { act: 'withdraw' as const }, seen: 4, corrects: null },
      words: 'taken back',
      code: 'L-01',
      mark: '',
      undoes: letter.key,
    })
    await flushPromises()
    calls = []
    answers = [made(41), made(42)]
    const arrived: string[] = []
    const stop = onArrived((one) => arrived.push(one.words))
    await send()
    stop()
    expect(calls.map((call) => call.body['corrects'])).toEqual([null, 41])
    expect(arrived).toEqual(['4.1 lb for A', 'taken back'])
  })

  it('belongs to the cook who wrote it: nobody else sees, sends or discards it', async () => {
    setOwner({ kitchen: 'canteen', username: 'maren' })
    const letter = weigh('A')
    await flushPromises()
    setOwner({ kitchen: 'canteen', username: 'odo' })
    calls = []
    answers = [made(5)]
    await send()
    const { letters, refused, others } = useOutbox()
    expect([letters.value, refused.value, others.value, calls]).toEqual([[], [], 1, []])
    setOwner({ kitchen: 'canteen', username: 'maren' })
    await send()
    expect(calls.map((call) => [call.key, call.cook])).toEqual([[letter.key, 'maren']])
    expect(others.value).toBe(0)
    setOwner(null)
  })

  it('lets others pass where the server keeps failing over one, which can be sent again under its key', async () => {
    answers = [problem('server_error'), problem('server_error'), problem('server_error')]
    const bad = weigh('A')
    await flushPromises()
    await send()
    expect(useOutbox().refused.value).toEqual([])
    weigh('C', 9, 'B-02')
    await flushPromises()
    answers.push(made(10))
    await send()
    expect(kept().map((letter) => letter.mark)).toEqual(['A'])
    const [refused] = useOutbox().refused.value
    calls = []
    answers = [made(5)]
    if (refused) tryAgain(refused)
    await flushPromises()
    expect(calls.map((call) => call.key)).toEqual([bad.key])
    expect(kept()).toEqual([])
  })

  it('says within five seconds that no answer comes, and gives a hung request up', async () => {
    vi.useFakeTimers()
    expect(SAY_SO).toBeLessThanOrEqual(5000)
    let isStopped = false
    vi.stubGlobal('fetch', (_: string, result: RequestInit) => {
      return new Promise((_answer, refuse) =>
        result.signal?.addEventListener('abort', () => {
          isStopped = true
          refuse(new DOMException('stopped', 'AbortError'))
        }),
      )
    })
    weigh('A')
    await vi.advanceTimersByTimeAsync(SAY_SO)
    expect(useOutbox().trouble.value?.code).toBe('no_connection')
    expect(isStopped).toBe(false)
    await vi.advanceTimersByTimeAsync(20_000)
    expect(isStopped).toBe(true)
    vi.useRealTimers()
  })

  it('waits where one is signed out or the record store is away', async () => {
    answers = [problem('signed_out')]
    weigh('A')
    await flushPromises()
    expect(useOutbox().waiting.value).toHaveLength(1)
    expect(useOutbox().trouble.value?.code).toBe('signed_out')
    answers = [problem('database_away')]
    await send()
    expect(useOutbox().refused.value).toEqual([])
    expect(isEntry(kept()[0]?.body ?? {})).toBe(true)
  })
})
