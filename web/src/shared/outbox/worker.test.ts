import { readFileSync } from 'node:fs'
import { beforeEach, describe, expect, it } from 'vitest'

const source = readFileSync('public/worker.js', 'utf8')
const ORIGIN = 'http://kitchen.test'

/** Caches as a browser keeps them, without the browser: whole or not at all. */
class FakeCache {
  held = new Map<string, string>()
  constructor(readonly load: (path: string) => Promise<Response>) {}
  match(asked: string | { url: string }): Promise<Response | undefined> {
    const text = this.held.get(new URL(typeof asked === 'string' ? asked : asked.url, ORIGIN).href)
    const headers = { Date: 'Mon, 02 Mar 2026 14:00:00 GMT' }
    return Promise.resolve(text === undefined ? undefined : new Response(text, { headers }))
  }
  async put(asked: { url: string }, answer: Response): Promise<void> {
    this.held.set(asked.url, await answer.text())
  }
  async addAll(paths: string[]): Promise<void> {
    const answers = await Promise.all(paths.map((path) => this.load(path)))
    if (answers.some((answer) => !answer.ok)) throw new TypeError('not all of it')
    const texts = await Promise.all(answers.map((answer) => answer.text()))
    paths.forEach((path, at) => this.held.set(ORIGIN + path, texts[at] ?? ''))
  }
  keys(): Promise<{ url: string }[]> {
    return Promise.resolve([...this.held.keys()].map((url) => ({ url })))
  }
  delete(asked: { url: string }): Promise<boolean> {
    return Promise.resolve(this.held.delete(asked.url))
  }
}

type FetchEvent = { respondWith?: Promise<Response>; waits: Promise<unknown>[] }
/** A worker over a server of `files`; a path that is missing is refused, none at all is no network. */
function work(files: { now: Record<string, string> | null }) {
  const load = async (path: string): Promise<Response> => {
    if (files.now === null) throw new TypeError('no network')
    const text = files.now[path]
    return text === undefined ? new Response('{}', { status: 404 }) : new Response(text)
  }
  const held = new Map<string, FakeCache>()
  const caches = {
    open: (name: string) => {
      const found = held.get(name) ?? new FakeCache(load)
      held.set(name, found)
      return Promise.resolve(found)
    },
    delete: (name: string) => Promise.resolve(held.delete(name)),
  }
  const heard = new Map<string, (event: object) => void>()
  const self = {
    location: { origin: ORIGIN },
    clients: { claim: () => Promise.resolve() },
    skipWaiting: () => Promise.resolve(),
    addEventListener: (name: string, listener: (event: object) => void) => heard.set(name, listener),
  }
  const fetch = (asked: string | { url: string }) =>
    load(typeof asked === 'string' ? asked : new URL(asked.url).pathname)
  new Function('self', 'caches', 'fetch', source)(self, caches, fetch)

  async function tell(name: string, more: object = {}): Promise<FetchEvent> {
    const result: FetchEvent = { waits: [] }
    heard.get(name)?.({
      waitUntil: (promise: Promise<unknown>) => result.waits.push(promise),
      respondWith: (promise: Promise<Response>) => (result.respondWith = promise),
      ...more,
    })
    await result.respondWith?.catch(() => undefined)
    await Promise.all(result.waits)
    return result
  }
  /** What a page asking for `path` is given; undefined where the worker leaves it to the browser. */
  async function ask(path: string, mode = 'cors', method = 'GET'): Promise<string | undefined> {
    const request = { method, mode, url: ORIGIN + path }
    const { respondWith } = await tell('fetch', { request })
    return (await respondWith)?.clone().text()
  }
  return { tell, ask }
}

const build = (name: string) => ({
  '/': `page ${name}`,
  '/bench/B-02/weigh': `page ${name}`,
  '/files.json': JSON.stringify({ main: { file: `assets/${name}.js`, css: [`assets/${name}.css`] } }),
  [`/assets/${name}.js`]: `script ${name}`,
  [`/assets/${name}.css`]: `style ${name}`,
  '/api/plan': 'what is due',
  '/api/batches/B-02/labels.pdf': '%PDF-',
})

describe('the worker that keeps the application on the device', () => {
  const files: { now: Record<string, string> | null } = { now: null }
  beforeEach(() => {
    files.now = build('one')
  })

  it('opens every view, and shows what was seen last, without network', async () => {
    const worker = work(files)
    await worker.tell('install')
    expect(await worker.ask('/api/plan')).toBe('what is due')
    files.now = null
    expect(await worker.ask('/bench/B-02/weigh', 'navigate')).toBe('page one')
    expect(await worker.ask('/assets/one.js')).toBe('script one')
    expect(await worker.ask('/assets/one.css')).toBe('style one')
    expect(await worker.ask('/api/plan')).toBe('what is due')
    await expect(worker.ask('/api/never-seen')).rejects.toThrow('no network')
    // what was seen before does not tell what time it is
    const request = { method: 'GET', mode: 'cors', url: `${ORIGIN}/api/plan` }
    const { respondWith } = await worker.tell('fetch', { request })
    expect((await respondWith)?.headers.get('Date')).toBeNull()
  })

  it('keeps a new build whole as soon as its page is served, and lets go of the old one', async () => {
    const worker = work(files)
    await worker.tell('install')
    files.now = build('two')
    expect(await worker.ask('/bench/B-02/weigh', 'navigate')).toBe('page two')
    files.now = null
    expect(await worker.ask('/', 'navigate')).toBe('page two')
    expect(await worker.ask('/assets/two.js')).toBe('script two')
    await expect(worker.ask('/assets/one.js')).rejects.toThrow('no network')
  })

  it.each(['/files.json', '/assets/two.css'])(
    'keeps the old build where %s of the new one does not come',
    async (lost) => {
      const worker = work(files)
      await worker.tell('install')
      const two = Object.entries(build('two')).filter(([path]) => path !== lost)
      files.now = Object.fromEntries(two)
      expect(await worker.ask('/', 'navigate')).toBe('page two')
      files.now = null
      expect(await worker.ask('/', 'navigate')).toBe('page one')
      expect(await worker.ask('/assets/one.js')).toBe('script one')
    },
  )

  it('takes no sheet of labels or photo in a tab for a page, nor anything that is written', async () => {
    const worker = work(files)
    await worker.tell('install')
    expect(await worker.ask('/api/batches/B-02/labels.pdf', 'navigate')).toBeUndefined()
    expect(await worker.ask('/api/batches/B-02/labels.pdf')).toBeUndefined()
    expect(await worker.ask('/api/scales/bench/stream')).toBeUndefined()
    expect(await worker.ask('/api/plan', 'cors', 'POST')).toBeUndefined()
    files.now = null
    expect(await worker.ask('/', 'navigate')).toBe('page one')
  })

  it('keeps no refusal, and forgets what was seen once one signs out', async () => {
    const worker = work(files)
    await worker.tell('install')
    await worker.ask('/api/plan')
    delete files.now?.['/api/plan']
    expect(await worker.ask('/api/plan')).toBe('{}')
    files.now = null
    expect(await worker.ask('/api/plan')).toBe('what is due')
    await worker.tell('message', { data: 'forget' })
    await expect(worker.ask('/api/plan')).rejects.toThrow('no network')
    expect(await worker.ask('/', 'navigate')).toBe('page one')
  })
})
