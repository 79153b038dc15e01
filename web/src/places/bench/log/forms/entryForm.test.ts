import { flushPromises, mount } from '@vue/test-utils'
import { VueQueryPlugin } from '@tanstack/vue-query'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Batch, Entry } from '@/shared/api/client'
import { batch, column, entry, standIn } from '@/shared/tests/samples'
import BatchLog from '@/places/bench/log/BatchLog.vue'
import StepForm from './StepForm.vue'
import WhatItDoes from './WhatItDoes.vue'

beforeEach(() => {
  localStorage.clear()
  stale = 0
  standIn('lb')
  vi.useFakeTimers()
})
afterEach(() => vi.useRealTimers())

type Call = { path: string; key: string | null; body: Record<string, unknown> }
const problem = (code: string, status: number, more: object = {}) => ({
  type: 'about:blank',
  title: 'Not recorded',
  status,
  code,
  detail: `result: ${code}`,
  fields: [],
  changes: [],
  ...more,
})

/** A server for the form: previews are empty, writes are answered in turn; every call is noted. */
function serve(...answers: [status: number, body: object][]) {
  const calls: Call[] = []
  let turn = 0
  vi.stubGlobal('fetch', async (request: Request) => {
    const path = new URL(request.url, 'http://here').pathname
    if (request.method === 'GET')
      return Response.json(path.endsWith('/cures') ? { cures: [], charges: [], unpriced: ['juniper'] } : [])
    const body = (await request.clone().json()) as Record<string, unknown>
    if (path.includes('/previews/')) return Response.json({ readings: [], problems: [] })
    calls.push({ path, key: request.headers.get('Idempotency-Key'), body })
    const [status, result] = answers[turn++] ?? [500, {}]
    return Response.json(result, { status })
  })
  return calls
}

let stale = 0
async function settle(): Promise<void> {
  await vi.advanceTimersByTimeAsync(300)
  await flushPromises()
}

function open(shown: Batch = batch(), correcting: Entry | null = null) {
  return mount(StepForm, {
    props: { batch: shown, correcting },
    attrs: { onStale: () => (stale += 1) },
    global: { plugins: [VueQueryPlugin] },
    attachTo: document.body,
  })
}
async function typeWeights(form: ReturnType<typeof open>): Promise<void> {
  const fields = form.findAll('input[placeholder="4 lb 6 oz"]')
  await fields[0]?.setValue('4 lb')
  await fields[1]?.setValue('2.5 lb')
}
const recorded = (): [number, object] => [201, { entry: 7, batch: batch({ seen: 3 }) }]

describe('recording a step', () => {
  it('sends what was typed, as typed, with what it has seen, and starts afresh', async () => {
    const calls = serve(recorded())
    const form = open()
    await typeWeights(form)
    expect(form.find('button[type="submit"]').text()).toBe('Record the smoke')
    await form.find('form').trigger('submit')
    await settle()
    expect(calls[0]?.body).toMatchObject({
      seen: 2,
      corrects: null,
      content: {
        act: 'weigh',
        kind: 'smoke',
        weights: [
          { mark: 'A', weight: '4 lb' },
          { mark: 'B', weight: '2.5 lb' },
        ],
      },
    })
    expect(form.emitted('recorded')?.[0]?.[1]).toBe('Recorded')
    expect(form.find<HTMLInputElement>('input[placeholder="4 lb 6 oz"]').element.value).toBe('')
  })

  it('names what went into the cure and has no price, out of the cure alone', async () => {
    serve()
    const form = open()
    await settle()
    expect(form.text()).not.toContain('juniper')
    const cure = form.findAll('label').find((one) => one.text() === 'Cure')
    await cure?.get('input').setValue(true)
    expect(form.text()).toContain('Not on the bill, for no price is listed: juniper.')
  })

  it('keeps what was typed when it fails, and tries again under the same key', async () => {
    const calls = serve([503, problem('database_away', 503)], recorded())
    const form = open()
    await typeWeights(form)
    await form.find('form').trigger('submit')
    await settle()
    expect(form.find('[role="alert"]').text()).toContain('result: database_away')
    expect(form.find<HTMLInputElement>('input[placeholder="4 lb 6 oz"]').element.value).toBe('4 lb')
    await form.find('[role="alert"] button').trigger('click')
    await settle()
    expect(calls[1]?.key).toBe(calls[0]?.key)
    expect(form.emitted('recorded')).toHaveLength(1)
  })

  it('puts a refusal at its field, and takes it away once that is typed anew', async () => {
    const fields = [{ path: 'weights[1].weight', code: 'zero', message: 'a weight of nothing' }]
    serve([422, problem('bad_fields', 422, { fields })])
    const form = open()
    await typeWeights(form)
    await form.find('form').trigger('submit')
    await settle()
    const wrong = form.find('[aria-invalid="true"]')
    expect(form.find(`[id="${wrong.attributes('aria-describedby')}"]`).text()).toContain(
      'a weight of nothing',
    )
    expect(document.activeElement).toBe(wrong.element)
    await wrong.setValue('3 lb')
    expect(form.find('[role="alert"]').exists()).toBe(false)
  })

  it('shows what others recorded, asks for the batch anew, and says what the button then does', async () => {
    serve([409, problem('moved_on', 409, { changes: ['Odo recorded “Rested”'] })])
    const form = open()
    await typeWeights(form)
    await form.find('form').trigger('submit')
    await settle()
    expect(form.find('[role="alert"]').text()).toContain('Odo recorded “Rested”')
    expect(form.find('button[type="submit"]').text()).toBe('Record the smoke anyway')
    expect(stale).toBe(1)
  })

  it('says when no answer comes at all', async () => {
    vi.stubGlobal('fetch', () => Promise.reject(new TypeError('offline')))
    const form = open()
    await typeWeights(form)
    await form.find('form').trigger('submit')
    await settle()
    expect(form.find('[role="alert"]').text()).toContain('No answer came back')
  })

  it('corrects an entry under its own kind, with a reason, or takes it back', async () => {
    const calls = serve(recorded(), recorded())
    const form = open(batch(), entry(2))
    expect(form.findAll('input[type="radio"]').map((radio) => radio.attributes('value'))).not.toContain(
      'trim',
    )
    await form.find('form').trigger('submit')
    await settle()
    expect(calls[0]?.body).toMatchObject({ corrects: 102, content: { kind: 'smoke' } })
    await form.findAll('button').at(-1)?.trigger('click')
    await settle()
    expect(calls[1]?.body).toMatchObject({ corrects: 102, content: { act: 'withdraw' } })
  })
})

describe('what an entry would do', () => {
  it('is gone at once when it is recorded, so that nothing moves under the next touch', async () => {
    serve([201, { entry: 1, batch: batch() }])
    const fetched = globalThis.fetch
    const does = { readings: [], problems: [], asks: [], shops: [], column: column('smoke', 'Smoked') }
    vi.stubGlobal('fetch', (request: Request) =>
      request.url.includes('/previews/') ? Promise.resolve(Response.json(does)) : fetched(request),
    )
    const form = open()
    await settle()
    expect(form.text()).toContain('kept of this step')
    await form.get('form').trigger('submit')
    await flushPromises()
    await vi.advanceTimersByTimeAsync(10)
    expect(form.text()).not.toContain('kept of this step')
  })
})

describe('what a weighing means', () => {
  it('names kept, lost and the price then, before it is recorded', () => {
    const preview = {
      readings: [],
      problems: [],
      asks: ['1 000 % of the weight before. Weighed with the tray?'],
      shops: [],
      column: column('trim', 'Trimmed', { peels: batch().strip.columns[1]?.peels ?? [] }),
    }
    const text = mount(WhatItDoes, { props: { preview, isStep: true } }).text()
    expect(text).toContain('80.0 %')
    expect(text).toContain('Weighed with the tray?')
    expect(text).toContain('lost, not weighed1.00 lb (0.454 kg)')
    expect(text).toContain('a pound then costs$2.94')
  })

  it('says what is wrong with the entry as a whole', () => {
    const problems = [{ path: 'pieces', code: 'overweight', message: 'weigh again' }]
    expect(
      mount(WhatItDoes, {
        props: { preview: { readings: [], problems, asks: [], shops: [] }, isStep: true },
      }).text(),
    ).toContain('weigh again')
  })
})

describe('the log', () => {
  it('draws a long log a part at a time, and keeps its first entry when more is recorded', async () => {
    const log = (count: number) => Array.from({ length: count }, (_, index) => entry(index + 1))
    const shown = mount(BatchLog, { props: { batch: batch({ log: log(80) }), correctingId: null } })
    expect(shown.findAll('li')).toHaveLength(40)
    await vi.advanceTimersByTimeAsync(100)
    expect(shown.findAll('li')).toHaveLength(80)
    await shown.setProps({ batch: batch({ log: log(81) }) })
    expect(shown.findAll('li')).toHaveLength(81)
  })

  it('shows the latest first, wrong entries beside what corrects or takes them back', () => {
    const log = [
      entry(1, { overruled_by: 102 }),
      entry(2, { corrects: 101, reason: 'digits swapped' }),
      entry(3, { overruled_by: 104 }),
      entry(4, { act: 'withdraw', corrects: 103, reason: 'other batch', lines: ['no longer counts'] }),
    ]
    const shown = mount(BatchLog, { props: { batch: batch({ log }), correctingId: null } })
    const result = shown.findAll('li').map((item) => item.text().replace(/\s+/g, ' '))
    expect(result[0]).toContain('Cancels entry 3: “other batch”')
    expect(result[1]).toContain('Canceled by entry 4; no longer counts')
    expect(result[2]).toContain('Corrects entry 1: “digits swapped”')
    expect(result[3]).toContain('Corrected by entry 2; no longer counts')
    expect(shown.findAll('button').map((button) => button.attributes('aria-label'))).toEqual([
      'Correct entry 2, Smoked',
    ])
  })
})
