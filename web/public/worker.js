/*
 * Keeps the application and what was last seen on the device, so that it opens without a connection.
 * Only reads are answered from here; what is written waits in the page's own outbox.
 */
const SHELL = 'dolmetsch-shell-1'
const SEEN = 'dolmetsch-seen-1'

async function keepShell() {
  const cache = await caches.open(SHELL)
  const files = await (await fetch('/files.json', { cache: 'no-store' })).json()
  const wanted = new Set(['/'])
  for (const part of Object.values(files)) {
    for (const file of [part.file, ...(part.css ?? []), ...(part.assets ?? [])]) wanted.add(`/${file}`)
  }
  for (const kept of await cache.keys()) {
    if (!wanted.has(new URL(kept.url).pathname)) await cache.delete(kept)
  }
  await cache.addAll([...wanted])
}

/** The network's answer, kept for when there is none; a refusal is passed on and never kept. */
async function networkFirst(request, name, keptAs = request) {
  const cache = await caches.open(name)
  try {
    const answer = await fetch(request)
    if (answer.ok) await cache.put(keptAs, answer.clone())
    return answer
  } catch (error) {
    const kept = await cache.match(keptAs)
    if (kept) return kept
    throw error
  }
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
  if (request.mode === 'navigate') event.respondWith(networkFirst(request, SHELL, '/'))
  else if (url.pathname.startsWith('/assets/')) event.respondWith(shellFirst(request))
  else if (
    url.pathname.startsWith('/api/') &&
    !/\/(stream|photos|files|plan\.ics|labels\.pdf)/.test(url.pathname)
  )
    event.respondWith(networkFirst(request, SEEN))
})
