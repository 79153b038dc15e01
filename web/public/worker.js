/*
 * Keeps the application and what was last seen on the device, so that it opens without a connection.
 * Only reads are answered from here; what is written waits in the page's own outbox.
 */
const SHELL = 'dolmetsch-shell-1'
const SEEN = 'dolmetsch-seen-1'

/** Keeps the application as it is served now: all of it or, where the network breaks off, what was kept before. */
async function keepShell() {
  const cache = await caches.open(SHELL)
  const told = await fetch('/files.json', { cache: 'no-store' })
  if (!told.ok) throw new Error('there is no list of files')
  const files = await told.json()
  const wanted = new Set(['/'])
  for (const part of Object.values(files)) {
    for (const file of [part.file, ...(part.css ?? []), ...(part.assets ?? [])]) wanted.add(`/${file}`)
  }
  await cache.addAll([...wanted])
  for (const kept of await cache.keys()) {
    if (!wanted.has(new URL(kept.url).pathname)) await cache.delete(kept)
  }
}

/** The page of every view. Where it is another than the one kept, a new build is served: that is kept from now on. */
async function page(event) {
  const kept = await (await caches.open(SHELL)).match('/')
  try {
    const answer = await fetch(event.request)
    const isKept = kept && (await kept.clone().text()) === (await answer.clone().text())
    if (answer.ok && !isKept) event.waitUntil(keepShell().catch(() => undefined))
    return answer
  } catch (error) {
    if (kept) return kept
    throw error
  }
}

/** The network's answer, kept for when there is none; a refusal is passed on and never kept. */
async function networkFirst(request) {
  const cache = await caches.open(SEEN)
  try {
    const answer = await fetch(request)
    if (answer.ok) await cache.put(request, answer.clone())
    return answer
  } catch (error) {
    const kept = await cache.match(request)
    if (kept) return seenEarlier(kept)
    throw error
  }
}

/** What was seen before does not tell what time it is now. */
function seenEarlier(kept) {
  const headers = new Headers(kept.headers)
  headers.delete('Date')
  return new Response(kept.body, { status: kept.status, statusText: kept.statusText, headers })
}

async function shellFirst(request) {
  const kept = await (await caches.open(SHELL)).match(request)
  return kept ?? fetch(request)
}

self.addEventListener('install', (event) => event.waitUntil(keepShell().then(() => self.skipWaiting())))
self.addEventListener('activate', (event) => event.waitUntil(self.clients.claim()))
self.addEventListener('message', (event) => {
  // signed out: what was seen is nobody's business any more
  if (event.data === 'forget') event.waitUntil(caches.delete(SEEN))
})
self.addEventListener('fetch', (event) => {
  const { request } = event
  const url = new URL(request.url)
  if (request.method !== 'GET' || url.origin !== self.location.origin) return
  const isApi = url.pathname.startsWith('/api/')
  if (request.mode === 'navigate') {
    // a sheet of labels or a photo in a tab of its own is no page of the application
    if (!isApi) event.respondWith(page(event))
  } else if (url.pathname.startsWith('/assets/')) event.respondWith(shellFirst(request))
  else if (isApi && !/\/(stream|photos|files|plan\.ics|labels\.pdf)/.test(url.pathname))
    event.respondWith(networkFirst(request))
})
